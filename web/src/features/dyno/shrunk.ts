import type { ShopReport } from '../../api/client'

/** Where the constants of a shop's builds stand beside each other. Pure. */

/** From and to of each constant's axis: all builds, and what every family expects, with a little room. */
export function axesOf({ levels, builds }: ShopReport): [number, number][] {
  const count = levels[0]?.constants.length ?? 0
  return Array.from({ length: count }, (_, k) => {
    const own = builds.flatMap(({ constants }) => constants[k]?.at ?? [])
    const expected = levels.slice(1).flatMap(({ constants }) => {
      const one = constants[k]
      return one ? [one.at - one.width, one.at + one.width] : []
    })
    const all = [...own, ...expected]
    if (all.length === 0) return [0, 1]
    const [least, most] = [Math.min(...all), Math.max(...all)]
    const room = Math.max(0.06 * (most - least), 1e-4)
    return [least - room, most + room]
  })
}

/** Where on an axis of so many pixels a value stands. */
export function place(
  value: number,
  [from, to]: readonly [number, number],
  pixels: number,
): number {
  return ((value - from) / (to - from)) * pixels
}

/** Builds under their families, in the order of the families. */
export function byFamily({ levels, builds }: ShopReport) {
  return levels.slice(1).map((level) => ({
    level,
    builds: builds.filter(({ family }) => family === level.title),
  }))
}
