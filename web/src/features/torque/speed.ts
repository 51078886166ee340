import { useSyncExternalStore } from 'react'

/** The speed whose cycle is looked at; every picture of it follows. Zero until somebody chooses. */
let chosen = 0
const listeners = new Set<() => void>()

export const speed = {
  read: (): number => chosen,
  subscribe: (listener: () => void): (() => void) => {
    listeners.add(listener)
    return () => listeners.delete(listener)
  },
  to(rpm: number): void {
    chosen = rpm
    for (const listener of listeners) listener()
  },
}

export function useSpeed(): number {
  return useSyncExternalStore(speed.subscribe, speed.read)
}

/** Place of the computed speed nearest to `rpm`; of the one at the power peak when nothing is chosen. Pure. */
export function nearest(speeds: readonly number[], rpm: number, peak: number): number {
  const wanted = rpm > 0 ? rpm : peak
  return speeds.reduce((best, value, place) => (Math.abs(value - wanted) < Math.abs((speeds[best] ?? 0) - wanted) ? place : best), 0)
}
