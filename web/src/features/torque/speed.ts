import { held, useHeld } from '../../model/held'

/** The speed whose cycle is looked at; every picture of it follows. Zero until somebody chooses. */
const chosen = held(0)

export const speed = { read: chosen.read, to: chosen.set }

export function useSpeed(): number {
  return useHeld(chosen)
}

/** Place of the computed speed nearest to `rpm`; of the one at the power peak when nothing is chosen. Pure. */
export function nearest(speeds: readonly number[], rpm: number, peak: number): number {
  const wanted = rpm > 0 ? rpm : peak
  return speeds.reduce(
    (best, value, place) =>
      Math.abs(value - wanted) < Math.abs((speeds[best] ?? 0) - wanted) ? place : best,
    0,
  )
}
