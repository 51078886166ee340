import type { CandidateReport, WorkbenchAnswer } from '../api/client'

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
    ...rest,
    readings: hasLimits ? answer.readings : last.readings,
    analysis: { ...answer.analysis, candidates: [merged(before, now, hasLimits)] },
  }
}

function merged(
  before: CandidateReport,
  now: CandidateReport,
  hasLimits: boolean,
): CandidateReport {
  return {
    ...now,
    lift: now.lift.state === 'not_asked' ? before.lift : now.lift,
    lobe: now.lobe.state === 'not_asked' ? before.lobe : now.lobe,
    train: now.train.state === 'not_asked' ? before.train : now.train,
    spring: now.spring.state === 'not_asked' ? before.spring : now.spring,
    drawing: now.drawing.state === 'not_asked' ? before.drawing : now.drawing,
    springs_stay: (hasLimits ? now : before).springs_stay ?? null,
    measure_next: hasLimits ? now.measure_next : before.measure_next,
    control: now.control.state === 'not_asked' ? before.control : now.control,
    limits: hasLimits ? now.limits : before.limits,
  }
}
