import type { FormField, LimitReport, Verdict } from '../api/client'

export type StepName = 'plan' | 'engine' | 'events' | 'lobe' | 'lifter' | 'rocker' | 'pushrod' | 'spring' | 'clearance' | 'torque' | 'compare'

export type PictureName = 'deck' | 'pocket-intake' | 'pocket-exhaust' | 'flow-intake' | 'flow-exhaust' | 'firing'

export interface Group {
  readonly title: string
  /** Paths, or beginnings of paths that end in a dot; `@` stands for the candidate in view. */
  readonly fields: readonly string[]
  readonly picture?: PictureName
  /** Closed for good, where the step shows the same otherwise, or only while nothing in it is given. */
  readonly folded?: 'until asked' | 'while empty'
}

interface Step {
  readonly name: StepName
  readonly title: string
  readonly groups: readonly Group[]
}

const list = (prefix: string, keys: string): string[] => keys.split(' ').map((key) => `${prefix}${key}`)

const port = (side: 'intake' | 'exhaust', title: string): Group[] => [
  {
    title: `${title} valve and pocket`,
    fields: [...list(`engine.${side}.`, 'valves valve_diameter stem_diameter guide_material valve_angle valve_cant valve_offset_x valve_offset_y second_offset_x second_offset_y face_recess piston_drop margin_thickness'), `engine.${side}.pocket.`],
    picture: `pocket-${side}`,
  },
  { title: `${title} room around the valve train`, fields: list(`engine.${side}.`, 'guide_length tip_to_guide spring_pocket pushrod_hole pushrod_hole_below cover_room'), folded: 'while empty' },
  { title: `${title} flow`, fields: list(`engine.${side}.`, 'flow_depression flow flow_reverse'), picture: `flow-${side}` },
]

const lobe = (side: 'intake' | 'exhaust', title: string): Group[] => [
  { title: `${title} lobe`, fields: list(`@.cam.${side}.`, 'part lobe_lift lash_ramp checks') },
  { title: `${title} lobe: asymmetric flanks, or measured`, fields: list(`@.cam.${side}.`, 'opening. closing. profile'), folded: 'while empty' },
]

/** Steps of which the strip is the subject: it begins tall there, and slim elsewhere. */
export const TALL_AT_FIRST: readonly StepName[] = ['events', 'clearance']

/** The way through the work, in the builder's order; every field of the document has its place in it. */
export const STEPS: readonly Step[] = [
  {
    name: 'plan',
    title: 'Plan',
    groups: [
      { title: 'The work', fields: ['name', 'use', 'notes'] },
      { title: 'Speeds', fields: list('target.', 'band_from band_to peak_power_at shift_at overspeed_by') },
      { title: 'Idle', fields: list('target.', 'idle_at idle_vacuum') },
      { title: 'Boost levels', fields: ['target.boost'] },
      { title: 'What the owner accepts', fields: list('target.', 'budget inspection_miles inspection_hours inspection_passes piston_clearance_school keep') },
      { title: 'Class rules', fields: ['target.rules.'] },
      { title: 'Air', fields: ['target.ambient.'] },
    ],
  },
  {
    name: 'engine',
    title: 'Engine',
    groups: [
      { title: 'Cylinder', fields: list('engine.', 'bore stroke rod_length pin_offset block_material head_material rod_material piston_assembly_mass rod_mass') },
      { title: 'Deck, gasket, chamber', fields: list('engine.', 'deck_clearance gasket_thickness gasket_bore chamber_volume piston_volume'), picture: 'deck' },
      { title: 'Combustion', fields: list('engine.', 'combustion fuel octane_ron air_fuel_ratio fuelling spark_retard smoke_air_fuel injection_start pressure_ceiling cranking_speed') },
      ...port('intake', 'Intake'),
      ...port('exhaust', 'Exhaust'),
      { title: 'Runners and what they breathe from', fields: [...list('engine.intake.', 'runner_length runner_lengths port_length runner_diameter acoustic_end'), 'engine.induction.'] },
      { title: 'Order and exhaust', fields: [...list('engine.', 'layout cylinders firing_order cam_drive drive_fits distributor_gear lifter_bore head_stud'), ...list('engine.exhaust.', 'primary_length primary_lengths primary_diameter'), 'engine.exhaust.collector.'], picture: 'firing' },
      { title: 'Only in this candidate', fields: ['@.changes.'] },
    ],
  },
  { name: 'events', title: 'Events', groups: [{ title: 'As the document has it, with sources', fields: [...list('@.cam.', 'lobe_separation intake_centreline'), '@.cam.events_050.'], folded: 'until asked' }] },
  {
    name: 'lobe',
    title: 'Lobe',
    groups: [
      ...lobe('intake', 'Intake'),
      ...lobe('exhaust', 'Exhaust'),
      { title: 'Core', fields: list('@.cam.', 'part price base_circle_diameter core_material ground_for wheel_radius snout gear bearing_diameter base_circle_before case_depth') },
    ],
  },
  { name: 'lifter', title: 'Lifter', groups: [{ title: 'Lifter', fields: ['@.train.lifter.'] }, { title: 'Work that moves the preload', fields: ['@.train.preload_work.'], folded: 'while empty' }] },
  { name: 'rocker', title: 'Rocker', groups: [{ title: 'Rocker', fields: ['@.train.rocker.'] }, { title: 'Readings of lift', fields: ['@.train.readings.'], folded: 'while empty' }, { title: 'Bridge over two valves', fields: ['@.train.bridge.'], folded: 'while empty' }] },
  { name: 'pushrod', title: 'Pushrod', groups: [{ title: 'Pushrod', fields: ['@.train.pushrod.'] }, { title: 'Measured pushrods and places', fields: ['@.train.matching.'], folded: 'while empty' }] },
  {
    name: 'spring',
    title: 'Spring',
    groups: [
      { title: 'Spring as fitted', fields: ['@.train.spring.'] },
      { title: 'Retainer and locks', fields: ['@.train.retainer.'] },
      { title: 'Valve', fields: ['@.train.valve.'] },
    ],
  },
  {
    name: 'clearance',
    title: 'Clearance',
    groups: [
      { title: 'Seals', fields: ['engine.intake.seal_height', 'engine.exhaust.seal_height'] },
      { title: 'Own limits', fields: ['limits'] },
    ],
  },
  {
    name: 'torque',
    title: 'Torque',
    groups: [
      { title: 'Pull on the dyno', fields: ['pull.'], folded: 'while empty' },
      { title: 'Calibration', fields: ['calibration.'], folded: 'until asked' },
    ],
  },
  { name: 'compare', title: 'Compare', groups: [{ title: 'This candidate', fields: ['@.name'] }] },
]

/** Fields that carry the format itself; nobody edits them by hand. */
const HIDDEN = ['format', 'version', '@.id']

function matches(field: string, pattern: string, index: number): boolean {
  const path = pattern.replace('@', `candidates[${index}]`)
  return path.endsWith('.') ? field.startsWith(path) : field === path || field.startsWith(`${path}[`)
}

export function groupsOf(step: StepName): readonly Group[] {
  return STEPS.find((s) => s.name === step)?.groups ?? []
}

/** The fields of one group, in the order of its patterns. Pure. */
export function fieldsOf(group: Group, fields: readonly FormField[], index: number): FormField[] {
  return group.fields.flatMap((pattern) => fields.filter((f) => matches(f.field, pattern, index)))
}

/** Whether a form asks for it: it has a meaning beside its neighbours, or was given all the same. Pure. */
export function isWanted(field: FormField): boolean {
  return field.applies || field.given
}

/** The step that holds `field`; plan when none does. */
export function stepOf(field: string, index: number): StepName {
  return placeOf(field, index)?.name ?? 'plan'
}

export function placeOf(field: string, index: number): Step | undefined {
  // A path inside a field, or of a whole object, leads where its fields are.
  const inside = (pattern: string) => pattern.replace('@', `candidates[${index}]`).startsWith(`${field}.`)
  const patterns = (step: Step) => step.groups.flatMap((g) => g.fields)
  return STEPS.find((step) => patterns(step).some((p) => matches(field, p, index))) ?? STEPS.find((step) => patterns(step).some(inside))
}

export function isHidden(field: string, index: number): boolean {
  return HIDDEN.some((pattern) => matches(field, pattern, index))
}

const RANK: Record<Verdict, number> = { fails: 4, tight: 3, unknown: 2, advice: 1, ok: 0 }

/** A step's state in a word: the worst verdict of the margins that belong to it. Pure. */
export function stateOf(step: StepName, limits: readonly LimitReport[]): Verdict | undefined {
  const own = limits.filter((limit) => limit.place === step)
  return own.reduce<Verdict | undefined>((worst, { verdict }) => (worst === undefined || RANK[verdict] > RANK[worst] ? verdict : worst), undefined)
}

/** How many of a step's fields are neither given nor assumed, and how many are assumed. Pure. */
export function tallyOf(step: StepName, fields: readonly FormField[], index: number): { assumed: number; given: number } {
  const own = groupsOf(step).flatMap((group) => fieldsOf(group, fields, index))
  return { assumed: own.filter((f) => f.applies && f.source === 'assumed').length, given: own.filter((f) => f.given).length }
}
