import type { DynamicsSide } from '../../api/client'

/** Stretch of the crank in which the lobe holds the valve open at any speed, as columns of the table. Pure. */
export function openColumns(side: DynamicsSide): readonly [number, number] {
  const held = (column: number) => side.contact_n.some((row) => (row[column] ?? -1) >= 0)
  const all = side.crank_deg.map((_, column) => column).filter(held)
  return [all[0] ?? 0, all.at(-1) ?? 0]
}

/** A share of the greatest load as one of six tones, the lightest for the least; nothing held is no tone. Pure. */
export function tone(load: number, most: number): number | undefined {
  if (load < 0) return undefined
  return Math.min(5, Math.floor((6 * load) / Math.max(most, 1)))
}

/** Load below which a contact counts as lost on the map, N. */
export const LOST_N = 1

/** Crank degrees from full lift of a column. Pure. */
export function fromFullLift(side: DynamicsSide, column: number): number {
  return (column / Math.max(side.crank_deg.length, 1)) * 720 - 360
}

/** The place of the speed nearest to `rpm`, of the one below the limit when nothing is chosen. Pure. */
export function speedAt(side: DynamicsSide, rpm: number): number {
  const wanted = rpm > 0 ? rpm : (side.limiting_speed_rpm ?? side.speed_rpm.at(-1) ?? 0)
  return side.speed_rpm.reduce(
    (best, value, place) =>
      Math.abs(value - wanted) < Math.abs((side.speed_rpm[best] ?? 0) - wanted) ? place : best,
    0,
  )
}
