import type { CurveReport } from '../../api/client'

/** A curve as it would be in air that makes `factor` of its torque; what is no torque or power stays. Pure. */
export function inAir(curve: CurveReport, factor: number): CurveReport {
  if (factor === 1) return curve
  const times = (values: readonly number[]) => values.map((value) => value * factor)
  const scaled = (value: number | null | undefined) =>
    typeof value === 'number' ? value * factor : null
  return {
    ...curve,
    torque_nm: times(curve.torque_nm),
    power_kw: times(curve.power_kw),
    peak_torque_nm: curve.peak_torque_nm * factor,
    peak_power_kw: curve.peak_power_kw * factor,
    average_torque_nm: scaled(curve.average_torque_nm),
    average_power_kw: scaled(curve.average_power_kw),
    peaks: curve.peaks.map((peak) => ({
      ...peak,
      torque_nm: scaled(peak.torque_nm),
      power_kw: scaled(peak.power_kw),
    })),
    pulled: curve.pulled.map(([rpm = 0, nm = 0]) => [rpm, nm * factor]),
  }
}

/** What makes the plan's air the one called `name`: 1 where the curve knows none of that name. Pure. */
export function factorOf(curve: CurveReport, name: string | undefined): number {
  return curve.standard_air.find((standard) => standard.name === name)?.factor ?? 1
}
