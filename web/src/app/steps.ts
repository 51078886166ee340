import type { LimitReport, Verdict } from '../api/client'

export type StepName = 'plan' | 'engine' | 'events' | 'lobe' | 'lifter' | 'rocker' | 'pushrod' | 'spring' | 'valve'

interface Step {
  readonly name: StepName
  readonly title: string
  /** Paths of its fields; `@` stands for the candidate in view. */
  readonly prefixes: readonly string[]
}

/** The way through the work, in the builder's order. */
export const STEPS: readonly Step[] = [
  { name: 'plan', title: 'Plan', prefixes: ['target.'] },
  { name: 'engine', title: 'Engine', prefixes: ['engine.'] },
  { name: 'events', title: 'Events', prefixes: ['@.cam.lobe_separation', '@.cam.intake_centreline', '@.cam.events_050'] },
  { name: 'lobe', title: 'Lobe', prefixes: ['@.cam.'] },
  { name: 'lifter', title: 'Lifter', prefixes: ['@.train.lifter.'] },
  { name: 'rocker', title: 'Rocker', prefixes: ['@.train.rocker.'] },
  { name: 'pushrod', title: 'Pushrod', prefixes: ['@.train.pushrod.'] },
  { name: 'valve', title: 'Valve', prefixes: ['@.train.valve.', '@.train.retainer.'] },
  { name: 'spring', title: 'Spring', prefixes: ['@.train.spring.'] },
]

export function prefixesOf(step: StepName, candidateIndex: number): string[] {
  const found = STEPS.find((s) => s.name === step)
  return (found?.prefixes ?? []).map((prefix) => prefix.replace('@', `candidates[${candidateIndex}]`))
}

/** The step that holds `field`. */
export function stepOf(field: string, candidateIndex: number): StepName {
  const at = (step: Step) => prefixesOf(step.name, candidateIndex).some((p) => `${field}.`.startsWith(p) || field.startsWith(p))
  return STEPS.find(at)?.name ?? 'events'
}

const RANK: Verdict[] = ['fails', 'tight', 'unknown', 'ok']

/** The worst verdict among the limits one changes in `step`; `undefined` when there are none. */
export function stateOf(step: StepName, limits: readonly LimitReport[], candidateIndex: number): Verdict | undefined {
  const own = limits.filter((l) => stepOf(l.edit_field, candidateIndex) === step)
  return RANK.find((verdict) => own.some((l) => l.verdict === verdict))
}
