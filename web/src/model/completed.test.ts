import { expect, test } from 'vitest'
import type { CandidateReport, LimitReport, WorkbenchAnswer } from '../api/client'
import { completed } from './completed'

const notAsked = { state: 'not_asked' } as const
const failed: { state: 'failed'; reason: string; needs: [] } = {
  state: 'failed',
  reason: 'no',
  needs: [],
}

function answer(part: Partial<CandidateReport>, readings: string[]): WorkbenchAnswer {
  const candidate: CandidateReport = {
    id: 'a',
    name: 'A',
    timing: notAsked,
    strip: notAsked,
    lift: notAsked,
    lobe: notAsked,
    train: notAsked,
    spring: notAsked,
    control: notAsked,
    clearance: notAsked,
    at_speed: notAsked,
    breathing: notAsked,
    following: notAsked,
    dynamics: notAsked,
    phasing: notAsked,
    tolerance: notAsked,
    drawing: notAsked,
    engine: notAsked,
    measure_next: [],
    limits: [],
    bench: [],
    sessions: [],
    ...part,
  }
  const scale = { unit: 'in', factor: 1, offset: 0, decimals: 3 }
  return {
    document: '',
    name: '',
    candidates: [],
    candidate_index: 0,
    handles: [],
    readings: readings.map((id) => ({ id, label: id, shown: { inch: '', metric: '' } })),
    analysis: {
      engine: notAsked,
      assumed: [],
      warnings: [],
      candidates: [candidate],
      scales: {
        length_inch: scale,
        length_metric: scale,
        force_inch: scale,
        force_metric: scale,
        angle: scale,
        flow_inch: scale,
        flow_metric: scale,
        torque_inch: scale,
        torque_metric: scale,
        power_inch: scale,
        power_metric: scale,
        pressure_inch: scale,
        pressure_metric: scale,
        temperature_inch: scale,
        temperature_metric: scale,
      },
    },
  }
}

const limits = [{ id: 'x' } as LimitReport]

test('a preview keeps what it was not asked for', () => {
  const last = answer({ spring: failed, at_speed: failed, limits }, ['x'])
  const whole = completed(last, answer({ timing: failed }, []))
  const [candidate] = whole.analysis.candidates
  expect(candidate?.timing).toEqual(failed)
  expect(candidate?.spring).toEqual(failed)
  expect(candidate?.at_speed).toEqual(failed)
  expect(candidate?.limits).toBe(limits)
  expect(whole.readings.map((r) => r.id)).toEqual(['x'])
})

test('another candidate keeps nothing of the one before', () => {
  const whole = completed(
    answer({ spring: failed, limits }, ['x']),
    answer({ id: 'b', timing: failed }, []),
  )
  expect(whole.analysis.candidates[0]?.limits).toEqual([])
  expect(whole.analysis.candidates[0]?.spring).toEqual(notAsked)
})

test('a preview keeps the curves of the valve it does not move, and the piston', () => {
  const strip = (lifts: number[], other: number[], whole: boolean) => ({
    state: 'done' as const,
    crank_deg: whole ? [0, 1] : [],
    piston_mm: whole ? [9, 8] : [],
    intake_lift_mm: lifts,
    exhaust_lift_mm: other,
    intake_velocity_mm_per_deg: lifts,
    exhaust_velocity_mm_per_deg: other,
    exhaust_clearance_mm: whole ? [3, 2] : null,
  })
  const last = answer({ strip: strip([1, 2], [5, 6], true) }, [])
  const whole = completed(last, answer({ strip: strip([1, 3], [], false) }, []))
  expect(whole.analysis.candidates[0]?.strip).toEqual({
    ...strip([1, 3], [5, 6], true),
  })
  const shown = completed(last, answer({ strip: strip([7], [8], true) }, []))
  expect(shown.analysis.candidates[0]?.strip).toEqual(strip([7], [8], true))
})

test('limits and readings of the valve that nothing moves stay where they stood', () => {
  const of = (id: string, side: 'intake' | 'exhaust' | null, formula: string, have: number) =>
    ({ id, side, formula, have }) as unknown as LimitReport
  const whole = [of('x', 'intake', 'f', 1), of('x', 'exhaust', 'g', 2), of('y', null, 'h', 3)]
  const last = answer({ limits: whole }, ['x_intake', 'x_exhaust'])
  const preview = answer({ limits: [of('x', 'intake', '', 7), of('y', null, '', 8)] }, ['x_intake'])
  const shown = completed(last, preview)
  expect(
    shown.analysis.candidates[0]?.limits.map(({ side, formula, have }) => [side, formula, have]),
  ).toEqual([
    ['intake', 'f', 7],
    ['exhaust', 'g', 2],
    [null, 'h', 8],
  ])
  expect(shown.readings.map(({ id }) => id)).toEqual(['x_intake', 'x_exhaust'])
  // At rest what is gone is gone.
  const rest = completed(last, { ...preview, fields: [] })
  expect(rest.analysis.candidates[0]?.limits).toHaveLength(2)
})
