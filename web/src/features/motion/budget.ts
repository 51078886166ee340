import type { TrainReport } from '../../api/client'

type Step = TrainReport['budget'][number]

export interface Bar {
  readonly step: Step
  /** Ends of its bar between 0 and 1. */
  readonly from: number
  readonly to: number
  readonly sense: 'start' | 'gain' | 'loss' | 'end'
}

/** Each step of the budget as a bar from where the last one ended; the first and the last stand on the ground. Pure. */
export function barsOf(steps: readonly Step[]): Bar[] {
  const most = Math.max(1e-9, ...steps.map((step) => step.lift_mm))
  return steps.map((step, place) => {
    const [before, after] = [(steps[place - 1]?.lift_mm ?? 0) / most, step.lift_mm / most]
    if (place === 0) return { step, from: 0, to: after, sense: 'start' }
    if (place === steps.length - 1) return { step, from: 0, to: after, sense: 'end' }
    return {
      step,
      from: Math.min(before, after),
      to: Math.max(before, after),
      sense: after >= before ? 'gain' : 'loss',
    }
  })
}
