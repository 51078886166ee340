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
    readings: answer.fields
      ? answer.readings
      : inPlace(last.readings, answer.readings, ({ id }) => id),
    analysis: {
      ...answer.analysis,
      ...(answer.fields
        ? {}
        : { assumed: last.analysis.assumed, warnings: last.analysis.warnings }),
      candidates: [answer.fields ? now : merged(before, now, hasLimits)],
    },
  }
}

/** What stood, in its order, with what came anew in place of its own and the rest behind; `keeps` what did not come. */
function inPlace<T>(
  before: readonly T[],
  now: readonly T[],
  keyOf: (each: T) => string,
  keeps: (each: T) => boolean = () => true,
): T[] {
  const at = new Map(now.map((each) => [keyOf(each), each]))
  const known = new Set(before.map(keyOf))
  return [
    ...before.flatMap((each) => at.get(keyOf(each)) ?? (keeps(each) ? [each] : [])),
    ...now.filter((each) => !known.has(keyOf(each))),
  ]
}

/** A block that was not asked for stays what it was. */
function asked<T extends { state: string }>(before: T, now: T): T {
  return now.state === 'not_asked' ? before : now
}

function merged(
  before: CandidateReport,
  now: CandidateReport,
  hasLimits: boolean,
): CandidateReport {
  return {
    ...now,
    strip: strip(before.strip, now.strip),
    lift: asked(before.lift, now.lift),
    lobe: asked(before.lobe, now.lobe),
    train: asked(before.train, now.train),
    spring: asked(before.spring, now.spring),
    drawing: asked(before.drawing, now.drawing),
    springs_stay: (hasLimits ? now : before).springs_stay ?? null,
    measure_next: before.measure_next,
    control: asked(before.control, now.control),
    at_speed: asked(before.at_speed, now.at_speed),
    tolerance: asked(before.tolerance, now.tolerance),
    phasing: asked(before.phasing, now.phasing),
    limits: hasLimits ? worded(before.limits, now.limits) : before.limits,
    bench: before.bench,
    sessions: before.sessions,
    assembly: before.assembly ?? null,
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

/**
 * Limits with what a preview left out: their constant text, and those of the valve that nothing moves, each where it stood.
 */
function worded(before: readonly LimitReport[], now: LimitReport[]): LimitReport[] {
  const key = ({ id, side }: LimitReport) => `${id} ${side ?? ''}`
  const known = new Map(before.map((limit) => [key(limit), limit]))
  const moved = now.map((limit) => {
    const { formula, school, source, inputs, remedies } = known.get(key(limit)) ?? limit
    return limit.formula === '' ? { ...limit, formula, school, source, inputs, remedies } : limit
  })
  // What trains in motion do is not turned anew at every step of a drag.
  const isStill = ({ id, side }: LimitReport) =>
    id.endsWith('_at_speed') ||
    (typeof side === 'string' && !now.some((limit) => limit.side === side))
  return inPlace(before, moved, key, isStill)
}
