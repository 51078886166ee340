import type { AtSpeedSide, GrowthTerm } from '../../api/client'

/** One step of a gap's way from rest to speed: a term with what is left before it and after it, mm. */
export interface Fall {
  readonly term: GrowthTerm
  readonly from: number
  readonly to: number
}

/** The way of a gap to the speed at a place: every term with what is left before and after it. Pure. */
export function fallOf(side: AtSpeedSide, place: number): Fall[] {
  let left = side.at_rest_mm
  return side.terms.map((term) => {
    const from = left
    left += term.mm[place] ?? 0
    return { term, from, to: left }
  })
}

/** What two schools make of it, mm: every allowance added and nothing given back, and everything counted. Pure. */
export function schoolsOf(falls: readonly Fall[]): { added: number; counted: number } | undefined {
  const [first, last] = [falls[0], falls.at(-1)]
  if (!first || !last) return undefined
  const taken = falls.reduce((sum, { from, to }) => sum + Math.min(to - from, 0), 0)
  return { added: first.from + taken, counted: last.to }
}
