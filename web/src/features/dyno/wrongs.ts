import type { DiagnosisReport, PullsReport } from '../../api/client'
import { percent } from '../../model/figures'
import type { Curve } from '../charts/series'

/** What is wrong, as curves and words. Pure. */

type Cause = DiagnosisReport['causes'][number]

/** Days on which a candidate was pulled, the earliest first. Pure. */
export function daysOf({ pulls }: PullsReport, candidate: string): string[] {
  const own = pulls.filter((pull) => pull.candidate === candidate && pull.day !== '')
  return [...new Set(own.map(({ day }) => day))].sort()
}

/** What was measured, what it is held against, and what a cause makes of that. Pure. */
export function causeCurves(
  { speed_rpm, measured_nm, reference_nm, against }: DiagnosisReport,
  cause: Cause | undefined,
  factor: number,
): Curve[] {
  const line = (torques: readonly number[]): [number, number][] =>
    speed_rpm.map((rpm, i) => [rpm, (torques[i] ?? 0) / factor])
  return [
    { name: 'measured', points: line(measured_nm), ink: 'one' },
    { name: against, points: line(reference_nm), ink: 'plain', beside: true },
    ...(cause?.torque_nm
      ? [{ name: cause.tried, points: line(cause.torque_nm), ink: 'two' } as const]
      : []),
  ]
}

/** What a cause came to where it was run. Pure. */
export function shareWords({ explains, times, tried }: Cause): string {
  if (typeof explains !== 'number') return tried === '' ? 'not in the model' : 'not run yet'
  if (explains < 0.05) return `${tried}: shows none of it`
  const strong = typeof times === 'number' ? `, ${times.toFixed(1)} times as strong` : ''
  return `${tried}${strong}: explains ${percent(explains, 0)}`
}
