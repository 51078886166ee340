import { scaled } from './axis'

/** What a chart draws; the same goes out as CSV. */
export interface Curve {
  readonly name: string
  readonly points: readonly (readonly [number, number])[]
  /** Colour and stroke by what it is. */
  readonly ink: Ink
  /** Thin and dotted: a curve beside the one looked at. */
  readonly beside?: boolean
  /** On the axis at the right. */
  readonly right?: boolean
  /** Marks the computed points. */
  readonly marked?: boolean
  /** Points alone, no line: what was measured. */
  readonly dots?: boolean
  /** No entry in the legend: an edge of a band. */
  readonly quiet?: boolean
}

export type Ink = 'intake' | 'exhaust' | 'plain' | 'one' | 'two' | 'three' | 'pulled'

const INKS: readonly Ink[] = ['one', 'two', 'three', 'plain']

/** The ink of the candidate at a place of the list. Pure. */
export function inkOf(place: number): Ink {
  return INKS[place % INKS.length] ?? 'plain'
}

/** A value between the points of a rising curve, on a straight line; none outside of them. Pure. */
export function valueAt(
  points: readonly (readonly [number, number])[],
  x: number,
): number | undefined {
  const after = points.findIndex(([own]) => own >= x - 1e-6)
  const [x1, y1] = points[after] ?? []
  const [x0, y0] = points[after - 1] ?? []
  if (x1 === undefined || y1 === undefined) return undefined
  if (Math.abs(x1 - x) < 1e-6) return y1
  return x0 === undefined || y0 === undefined ? undefined : y0 + ((x - x0) / (x1 - x0)) * (y1 - y0)
}

/** An area between two curves, by their places in the list. */
export interface Band {
  readonly between: readonly [number, number]
  readonly ink: Ink
}

export interface Axis {
  readonly unit: string
  /** Bounds; from the curves where absent. */
  readonly from?: number
  readonly to?: number
}

/** A stretch of the abscissa that is wanted or forbidden. */
export interface Stretch {
  readonly from: number
  readonly to: number
  readonly kind: 'wanted' | 'forbidden'
}

/** A place on the abscissa with a word. */
export interface Mark {
  readonly x: number
  readonly text: string
}

type Column = (number | null | undefined)[]

/** Every abscissa of all curves, rising, and each curve's values on it; `undefined` where a curve has no point. Pure. */
export function tableOf(curves: readonly Curve[]): Column[] {
  const all = [...new Set(curves.flatMap((curve) => curve.points.map(([x]) => x)))].sort(
    (a, b) => a - b,
  )
  const columns = curves.map(({ points }): Column => {
    const at = new Map(points)
    return all.map((x) => at.get(x))
  })
  return [all, ...columns]
}

/** Bounds of an axis: those wanted, else sensible ones around the values. Pure. */
export function boundsOf(axis: Axis, values: readonly number[]): [number, number] {
  const [low, high] = scaled(values)
  return apart(axis.from ?? low, axis.to ?? high)
}

/** What is shown of an abscissa: all there is so far, as wide as the axis asks, or the part that was zoomed to. Pure. */
export function viewOf(
  axis: Axis,
  [first, last]: readonly [number, number],
  [low, high]: readonly [number, number],
): [number, number] {
  return apart(low === first ? (axis.from ?? low) : low, high === last ? (axis.to ?? high) : high)
}

/** Bounds that hold something: of a single point, or of bounds the wrong way round, a little on both sides. Pure. */
export function apart(from: number, to: number): [number, number] {
  const least = 1e-6 * Math.max(1, Math.abs(from))
  return to - from > least ? [from, to] : [from - 0.5, from + 0.5]
}

/** The place of the point nearest to `x`. Pure. */
export function nearestTo(x: number, all: readonly (number | null | undefined)[]): number {
  let best = 0
  all.forEach((value, place) => {
    const now = all[best]
    if (
      typeof value === 'number' &&
      typeof now === 'number' &&
      Math.abs(value - x) < Math.abs(now - x)
    )
      best = place
  })
  return best
}
