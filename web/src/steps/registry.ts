import type { FormField, LimitReport, Verdict } from '../api/client'
import type { Group } from '../model/groups'
import { holds } from '../model/groups'
import type { StepName } from '../model/place'
import { events, lobe } from './cam'
import { choose } from './choose'
import { engine } from './engine'
import { plan } from './plan'
import { bench, clearance, control, decide, dyno, order, service, torque } from './results'
import type { Step } from './step'
import { lifter, pushrod, rocker, spring } from './train'

/** The way through the work, in the builder's order; every field of the document has its place in it. */
export const STEPS: readonly Step[] = [
  plan,
  engine,
  events,
  lobe,
  lifter,
  rocker,
  pushrod,
  spring,
  control,
  clearance,
  torque,
  choose,
  decide,
  order,
  bench,
  dyno,
  service,
]

const FIRST = plan

export function stepNamed(name: StepName): Step {
  return STEPS.find((step) => step.name === name) ?? FIRST
}

/** The step that holds `field`, a path inside it or a whole object of it. Pure. */
export function placeOf(field: string, index: number): Step | undefined {
  const has = (step: Step, how: 'it' | 'inside') =>
    step.groups.some((group: Group) => holds(group, field, index) === how)
  return STEPS.find((step) => has(step, 'it')) ?? STEPS.find((step) => has(step, 'inside'))
}

/** The name of the step that holds `field`; plan when none does. */
export function stepOf(field: FormField['field'], index: number): StepName {
  return placeOf(field, index)?.name ?? FIRST.name
}

const RANK: Record<Verdict, number> = { fails: 4, tight: 3, unknown: 2, advice: 1, ok: 0 }

/** A step's state in a word: the worst verdict of the margins that belong to it. Pure. */
export function stateOf(step: StepName, limits: readonly LimitReport[]): Verdict | undefined {
  const own = limits.filter((limit) => limit.place === step)
  return own.reduce<Verdict | undefined>(
    (worst, { verdict }) => (worst === undefined || RANK[verdict] > RANK[worst] ? verdict : worst),
    undefined,
  )
}
