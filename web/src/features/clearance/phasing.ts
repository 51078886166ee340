import type { PhasingReport, Scale } from '../../api/client'
import type { Curve } from '../charts/series'

type Column = readonly number[] | null | undefined

/** Gaps of both valves over how the cam is turned: at rest thin and dotted, at speed in full. Pure. */
export function gapCurves(report: PhasingReport, scale: Scale): Curve[] {
  // Metal in metal is no gap to draw: what is below nothing ends the line.
  const points = (mm: Column) =>
    report.advance_deg.flatMap((deg, i) => {
      const value = mm?.[i]
      return value === undefined || value < 0 ? [] : [[deg, (value * 1e-3) / scale.factor] as const]
    })
  const curves: Curve[] = [
    { name: 'intake at speed', points: points(report.intake_at_speed_mm), ink: 'intake' },
    { name: 'exhaust at speed', points: points(report.exhaust_at_speed_mm), ink: 'exhaust' },
    {
      name: 'intake at rest',
      points: points(report.intake_clearance_mm),
      ink: 'intake',
      beside: true,
    },
    {
      name: 'exhaust at rest',
      points: points(report.exhaust_clearance_mm),
      ink: 'exhaust',
      beside: true,
    },
  ]
  return curves.filter((curve) => curve.points.length > 0)
}

/** Torque over how the cam is turned, against how it is given, in per cent. Pure. */
export function torqueCurves({ advance_deg: advance, torque }: PhasingReport): Curve[] {
  if (!torque) return []
  const here = advance.indexOf(0)
  const points = (all: readonly number[]) =>
    advance.map((deg, i) => [deg, 100 * ((all[i] ?? 0) / (all[here] ?? 1) - 1)] as const)
  return [
    { name: 'average torque', points: points(torque.average_torque_nm), ink: 'one' },
    { name: 'lowest third', points: points(torque.low_torque_nm), ink: 'two' },
    { name: 'peak power', points: points(torque.peak_power_kw), ink: 'three' },
  ]
}

/** Where nothing fails and where something does, as stretches of the axis. Pure. */
export function stretchesOf(report: PhasingReport) {
  const set = report.set_deg ?? undefined
  return set ? [{ from: set[0] ?? 0, to: set[1] ?? 0, kind: 'wanted' as const }] : []
}

/** What a place of the window means, in words. Pure. */
export function saysAt(report: PhasingReport, place: number): string {
  const fails = report.fails[place] ?? []
  const deg = report.advance_deg[place] ?? 0
  const turned =
    deg === 0
      ? 'As it is set'
      : `${Math.abs(deg).toFixed(1)} deg ${deg > 0 ? 'advanced' : 'retarded'}`
  return fails.length === 0
    ? `${turned}: nothing that depends on phasing fails.`
    : `${turned}: ${fails.join(', ')} ${fails.length === 1 ? 'fails' : 'fail'}.`
}
