import type { Effect } from '../../api/client'

export type Measure = 'average_torque' | 'peak_power'

export interface Mover {
  readonly effect: Effect
  /** Relative change; `undefined` where it could not be made. */
  readonly by: number | undefined
  /** Beginning and length of its bar between -1 and 1. */
  readonly from: number
  readonly length: number
}

/** Effects ranked by what they do, the strongest first, those that could not be made last. Pure. */
export function ranked(effects: readonly Effect[], measure: Measure): Mover[] {
  const by = (effect: Effect): number | undefined => effect[measure] ?? undefined
  const most = effects.reduce((a, effect) => Math.max(a, Math.abs(by(effect) ?? 0)), 1e-4)
  const size = (effect: Effect) => {
    const value = by(effect)
    return value === undefined ? -1 : Math.abs(value)
  }
  return [...effects]
    .sort((a, b) => size(b) - size(a))
    .map((effect) => {
      const value = by(effect)
      return {
        effect,
        by: value,
        from: Math.min(0, value ?? 0) / most,
        length: Math.abs(value ?? 0) / most,
      }
    })
}
