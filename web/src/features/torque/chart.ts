import type { CurveReport, Scale } from '../../api/client'
import { ticks } from '../strip/geometry'

/** Where speeds, torques and powers stand in the picture. */
export interface TorqueFrame {
  readonly width: number
  readonly height: number
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
  readonly from: number
  readonly to: number
  /** Ends of the axes, in shown units. */
  readonly torque: Span
  readonly power: Span
}

interface Span {
  readonly least: number
  readonly most: number
}

export interface Scales {
  readonly torque: Scale
  readonly power: Scale
}

/** Round ends that hold every curve; neighbouring curves of a drag keep the same. Pure. */
export function frameOf(
  curves: readonly CurveReport[],
  scales: Scales,
  width: number,
  height: number,
): TorqueFrame {
  const speeds = curves.flatMap((curve) => [...curve.speed_rpm, ...curve.band_rpm])
  const edge = (sign: number) =>
    curves.flatMap((curve) =>
      curve.torque_nm.map(
        (nm, i) => (nm * (1 + sign * (curve.error_share[i] ?? 0))) / scales.torque.factor,
      ),
    )
  const power = curves.flatMap((curve) =>
    curve.power_kw.map((kw) => (kw * 1e3) / scales.power.factor),
  )
  return {
    width,
    height,
    left: 48,
    right: 48,
    top: 18,
    bottom: 28,
    from: Math.min(...speeds),
    to: Math.max(...speeds),
    torque: spanOf([
      ...edge(1),
      ...edge(-1),
      ...curves.flatMap((curve) => curve.pulled.map(([, nm = 0]) => nm / scales.torque.factor)),
    ]),
    power: spanOf(power),
  }
}

/** Round ends around some values: below the least only as far as it needs, to see what a degree does. Pure. */
export function spanOf(values: readonly number[]): Span {
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const [first = 0, second = 1] = ticks(0, Math.max(1, high - Math.max(0, 0.85 * low)), 6)
  const step = second - first
  return {
    least: Math.floor(Math.min(low, 0.97 * low) / step) * step,
    most: Math.ceil((high + 0.02 * Math.abs(high)) / step) * step,
  }
}

export function xOf(frame: TorqueFrame, rpm: number): number {
  return (
    frame.left +
    ((rpm - frame.from) / Math.max(1, frame.to - frame.from)) *
      (frame.width - frame.left - frame.right)
  )
}

export function rpmOf(frame: TorqueFrame, x: number): number {
  return (
    frame.from +
    ((x - frame.left) / (frame.width - frame.left - frame.right)) * (frame.to - frame.from)
  )
}

export function yOf(frame: TorqueFrame, value: number, span: Span): number {
  return (
    frame.height -
    frame.bottom -
    ((value - span.least) / (span.most - span.least)) * (frame.height - frame.top - frame.bottom)
  )
}

/** The line of one column over speed. Pure. */
export function lineOf(
  frame: TorqueFrame,
  speeds: readonly number[],
  values: readonly number[],
  span: Span,
): string {
  return `M${speeds.map((rpm, i) => `${xOf(frame, rpm).toFixed(1)},${yOf(frame, values[i] ?? 0, span).toFixed(1)}`).join('L')}`
}

/** The area within the error of a torque curve. Pure. */
export function bandOf(frame: TorqueFrame, curve: CurveReport, torque: Scale): string {
  const shown = curve.torque_nm.map((nm) => nm / torque.factor)
  const edge = (sign: number) =>
    shown.map((value, i) => value * (1 + sign * (curve.error_share[i] ?? 0)))
  const upper = lineOf(frame, curve.speed_rpm, edge(1), frame.torque)
  const lower = lineOf(frame, [...curve.speed_rpm].reverse(), edge(-1).reverse(), frame.torque)
  return `${upper}L${lower.slice(1)}Z`
}
