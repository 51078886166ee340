import { held, useHeld } from './held'

/** The one crank angle that every picture follows. Apart from the session: it moves every frame. */
const angle = held(372)

export const scrub = {
  read: angle.read,
  /** Moves to `deg`, folded into the cycle, to a tenth. */
  to(deg: number): void {
    const folded = ((deg % 720) + 720) % 720
    angle.set(Math.round(folded * 10) / 10)
  },
}

export function useScrub(): number {
  return useHeld(angle)
}

/** Value of a curve a degree apart at any angle, between its points linear. */
export function onCurve(curve: readonly number[], deg: number): number {
  const left = Math.min(Math.max(Math.floor(deg), 0), curve.length - 2)
  const from = curve[left] ?? 0
  const to = curve[left + 1] ?? from
  return from + (deg - left) * (to - from)
}
