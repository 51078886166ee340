import { expect, test } from 'vitest'
import type { DiagnosisReport, PullsReport } from '../../api/client'
import { causeCurves, daysOf, shareWords } from './wrongs'

type Cause = DiagnosisReport['causes'][number]

test('days of a candidate are told once and in order', () => {
  const pull = (candidate: string, day: string) => ({ candidate, day })
  const report = {
    pulls: [
      pull('a', '2026-06-01'),
      pull('a', '2026-03-01'),
      pull('b', '2025-01-01'),
      pull('a', ''),
    ],
  } as PullsReport
  expect(daysOf(report, 'a')).toEqual(['2026-03-01', '2026-06-01'])
})

test('a cause is laid over what was measured where it was run', () => {
  const report = {
    speed_rpm: [2000],
    measured_nm: [380],
    reference_nm: [400],
    against: 'the model',
  } as unknown as DiagnosisReport
  const cause = { tried: 'springs at 85 %', torque_nm: [390] } as unknown as Cause
  expect(causeCurves(report, undefined, 2)).toHaveLength(2)
  expect(causeCurves(report, cause, 2)[2]).toMatchObject({
    name: 'springs at 85 %',
    points: [[2000, 195]],
  })
})

test('what a cause came to is said, also where that is nothing', () => {
  const of = (own: Partial<Cause>) => shareWords({ tried: 'x', ...own } as Cause)
  expect(of({ explains: null, tried: '' })).toBe('not in the model')
  expect(of({ explains: null })).toBe('not run yet')
  expect(of({ explains: 0.01, times: null })).toBe('x: shows none of it')
  expect(of({ explains: 0.9, times: 1.24 })).toBe('x, 1.2 times as strong: explains 90 %')
})
