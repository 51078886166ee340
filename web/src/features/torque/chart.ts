import type { CurveReport, Scale } from '../../api/client'
import type { Band, Curve, Ink, Mark, Stretch } from '../charts/series'

export interface Scales {
  readonly torque: Scale
  readonly power: Scale
}

export interface OtherCurve {
  readonly name: string
  readonly curve: CurveReport
}

const INKS: readonly Ink[] = ['two', 'plain', 'exhaust']

/** What of a curve is drawn. */
type Speeds = Pick<CurveReport, 'speed_rpm' | 'torque_nm' | 'power_kw'>

/** Torque and power of a curve over its speeds, as shown. Pure. */
export function torqueOf(curve: Speeds, scales: Scales): [number, number][] {
  return curve.speed_rpm.map((rpm, i) => [rpm, (curve.torque_nm[i] ?? 0) / scales.torque.factor])
}

export function powerOf(curve: Speeds, scales: Scales): [number, number][] {
  return curve.speed_rpm.map((rpm, i) => [
    rpm,
    ((curve.power_kw[i] ?? 0) * 1e3) / scales.power.factor,
  ])
}

/** A curve with the edges of what it may be off by, and the area between them. Pure. */
function bandOf(curve: CurveReport, scales: Scales): Curve[] {
  const edge = (name: string, sign: number): Curve => ({
    name,
    points: torqueOf(curve, scales).map(([rpm, torque], i) => [
      rpm,
      torque * (1 + sign * (curve.error_share[i] ?? 0)),
    ]),
    ink: 'one',
    quiet: true,
  })
  return [edge('at most', 1), edge('at least', -1)]
}

/** Every hump of torque and of power as a point. Pure. */
function peaksOf(curve: CurveReport, scales: Scales): Curve[] {
  const points = (of: (peak: CurveReport['peaks'][number]) => number | null | undefined) =>
    curve.peaks.flatMap((peak): [number, number][] => {
      const value = of(peak)
      return typeof value === 'number' ? [[peak.rpm, value]] : []
    })
  const torque = points((peak) => peak.torque_nm).map(([rpm, nm]): [number, number] => [
    rpm,
    nm / scales.torque.factor,
  ])
  const power = points((peak) => peak.power_kw).map(([rpm, kw]): [number, number] => [
    rpm,
    (kw * 1e3) / scales.power.factor,
  ])
  return [
    { name: 'torque peaks', points: torque, ink: 'one', dots: true, quiet: true },
    { name: 'power peaks', points: power, ink: 'three', dots: true, right: true, quiet: true },
  ]
}

export interface TorquePicture {
  readonly curves: readonly Curve[]
  readonly bands: readonly Band[]
  readonly stretches: readonly Stretch[]
  readonly marks: readonly Mark[]
}

/** Everything of the picture: what the plan wants, the error to expect, the curve, others, the curve before, a pull. Pure. */
export function pictureOf(
  curve: CurveReport,
  before: CurveReport | undefined,
  others: readonly OtherCurve[],
  scales: Scales,
): TorquePicture {
  const pair = (of: CurveReport, name: string, more: Pick<Curve, 'ink' | 'beside'>): Curve[] => [
    { name: `${name}torque`, points: torqueOf(of, scales), ...more },
    { name: `${name}power`, points: powerOf(of, scales), right: true, ...more },
  ]
  const [from = 0, to = 0] = curve.band_rpm
  const pulled = curve.pulled.map(([rpm = 0, nm = 0]): [number, number] => [
    rpm,
    nm / scales.torque.factor,
  ])
  const curves: Curve[] = [
    ...bandOf(curve, scales),
    { name: 'torque', points: torqueOf(curve, scales), ink: 'one', marked: true },
    { name: 'power', points: powerOf(curve, scales), ink: 'three', right: true },
    ...peaksOf(curve, scales),
    ...(before ? pair(before, 'before, ', { ink: 'one', beside: true }) : []),
    ...others.flatMap(({ name, curve: other }, place) =>
      pair(other, `${name} `, { ink: INKS[place % INKS.length] ?? 'plain' }),
    ),
    ...(pulled.length > 0
      ? [{ name: 'measured torque', points: pulled, ink: 'pulled', dots: true } as const]
      : []),
  ]
  const mark = (x: number | null | undefined, text: string): Mark[] =>
    typeof x === 'number' ? [{ x, text }] : []
  return {
    curves,
    bands: [{ between: [0, 1], ink: 'one' }],
    stretches: [{ from, to, kind: 'wanted' }],
    marks: [...mark(curve.peak_wanted_rpm, 'power peak wanted'), ...mark(curve.shift_rpm, 'shift')],
  }
}
