import type { FilmSide } from '../../api/client'

/** Gaps are drawn so many times as large as they are, and so many times the coils' waves: nobody would see them. */
export const GAPS = 10
export const WAVES = 4

/** One train at one angle, millimetres. */
export interface Frame {
  readonly valve: number
  /** Where the rocker's tip stands, as a lift of the valve. */
  readonly tip: number
  readonly lobeGap: number
  readonly cupGap: number
  readonly stemGap: number
  /** How far each mass of the outer coil has gone down, from the seat up. */
  readonly coil: readonly number[]
}

/** The picture of a film at a crank angle, between two of them linear. Pure. */
export function frameAt(film: FilmSide, deg: number): Frame {
  const [first = 0, second = first + 1] = film.crank_deg
  const step = (second - first + 720) % 720 || 1
  const count = Math.max(film.crank_deg.length, 1)
  const place = ((((deg - first) % 720) + 720) % 720) / step
  const [left, share] = [Math.floor(place) % count, place % 1]
  const right = (left + 1) % count
  const at = (values: readonly number[]) => {
    const from = values[left] ?? 0
    return from + share * ((values[right] ?? from) - from)
  }
  const masses = film.coil_mm[left] ?? []
  const next = film.coil_mm[right] ?? masses
  return {
    valve: at(film.valve_mm),
    tip: at(film.tip_mm),
    lobeGap: at(film.lobe_gap_mm),
    cupGap: at(film.cup_gap_mm),
    stemGap: at(film.stem_gap_mm),
    coil: masses.map((down, i) => down + share * ((next[i] ?? down) - down)),
  }
}

/** How far a coil is drawn above its even place at a share of the way from seat to retainer, mm. Pure. */
export function waveOf(frame: Frame): (share: number) => number {
  const links = frame.coil.length + 1
  // Seat and retainer are places of the chain too.
  const places = [0, ...frame.coil, frame.valve]
  return (share) => {
    const at = Math.min(Math.max(share, 0), 1) * links
    const left = Math.min(Math.floor(at), links - 1)
    const from = places[left] ?? 0
    const down = from + (at - left) * ((places[left + 1] ?? from) - from)
    return -WAVES * (down - share * frame.valve)
  }
}
