import type { CandidateReport, LimitReport, WorkbenchAnswer } from '../api/client'

/** `answer` with what it was not asked for taken from `last`: a preview keeps the rest on screen. Pure. */
export function completed(last: WorkbenchAnswer, answer: WorkbenchAnswer): WorkbenchAnswer {
  const [before] = last.analysis.candidates
  const [now] = answer.analysis.candidates
  const rest = Object.fromEntries(
    (['fields', 'beside', 'table'] as const).map((name) => [
      name,
      answer[name] ?? (answer.fields ? undefined : last[name]),
    ]),
  )
  if (!before || now?.id !== before.id) return { ...answer, ...rest }
  const hasLimits = now.limits.length > 0
  return {
    ...answer,
    document: answer.document === '' ? last.document : answer.document,
    ...rest,
    readings: hasLimits ? answer.readings : last.readings,
    analysis: {
      ...answer.analysis,
      ...(answer.fields
        ? {}
        : { assumed: last.analysis.assumed, warnings: last.analysis.warnings }),
      candidates: [
        { ...merged(before, now, hasLimits), bench: answer.fields ? now.bench : before.bench },
      ],
    },
  }
}

function merged(
  before: CandidateReport,
  now: CandidateReport,
  hasLimits: boolean,
): CandidateReport {
  return {
    ...now,
    strip: strip(before.strip, now.strip),
    lift: now.lift.state === 'not_asked' ? before.lift : now.lift,
    lobe: now.lobe.state === 'not_asked' ? before.lobe : now.lobe,
    train: now.train.state === 'not_asked' ? before.train : now.train,
    spring: now.spring.state === 'not_asked' ? before.spring : now.spring,
    drawing: now.drawing.state === 'not_asked' ? before.drawing : now.drawing,
    springs_stay: (hasLimits ? now : before).springs_stay ?? null,
    measure_next: now.measure_next.length > 0 ? now.measure_next : before.measure_next,
    control: now.control.state === 'not_asked' ? before.control : now.control,
    limits: hasLimits ? worded(before.limits, now.limits) : before.limits,
  }
}

type Strip = CandidateReport['strip']

/** The curves of a strip, those a preview left out as they were: nothing it dragged has moved them. */
function strip(before: Strip, now: Strip): Strip {
  if (before.state !== 'done' || now.state !== 'done' || now.crank_deg.length > 0) return now
  const isStill = (side: 'intake' | 'exhaust') => now[`${side}_lift_mm`].length === 0
  return {
    ...now,
    crank_deg: before.crank_deg,
    piston_mm: before.piston_mm,
    ...(isStill('intake') ? ofSide(before, 'intake') : {}),
    ...(isStill('exhaust') ? ofSide(before, 'exhaust') : {}),
  }
}

function ofSide(curves: Extract<Strip, { state: 'done' }>, side: 'intake' | 'exhaust') {
  const keys = [
    `${side}_lift_mm`,
    `${side}_velocity_mm_per_deg`,
    `${side}_running_mm`,
    `${side}_clearance_mm`,
  ] as const
  return Object.fromEntries(keys.map((key) => [key, curves[key]]))
}

/** Limits with the constant text that a preview left out. */
function worded(before: readonly LimitReport[], now: LimitReport[]): LimitReport[] {
  return now.map((limit) => {
    if (limit.formula !== '') return limit
    const known = before.find(({ id, side }) => id === limit.id && side === limit.side)
    if (!known) return limit
    const { formula, school, source, inputs, remedies } = known
    return { ...limit, formula, school, source, inputs, remedies }
  })
}
