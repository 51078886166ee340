import type { SearchPoint } from '../../api/client'
import type { Scales } from '../torque/chart'

/** A figure that points can be drawn over and filtered by. */
export interface PointFigure {
  readonly id: string
  readonly title: string
  /** Its value as shown; absent where it is not known. */
  readonly of: (point: SearchPoint) => number | undefined
  /** Digits after the point. */
  readonly decimals: number
}

/** The figures of a point, in the units that are shown. Pure. */
export function pointFigures(scales: Scales): readonly PointFigure[] {
  const torque = (nm: number) => nm / scales.torque.factor
  const power = (kw: number) => (kw * 1e3) / scales.power.factor
  const plain = (value: number | null | undefined) => value ?? undefined
  return [
    {
      id: 'power_wanted',
      title: `power where wanted, ${scales.power.unit}`,
      of: (point) => power(point.power_wanted_kw),
      decimals: 1,
    },
    {
      id: 'average_torque',
      title: `average torque, ${scales.torque.unit}`,
      of: (point) => torque(point.average_torque_nm),
      decimals: 1,
    },
    {
      id: 'low_torque',
      title: `low-speed torque, ${scales.torque.unit}`,
      of: (point) => torque(point.low_torque_nm),
      decimals: 1,
    },
    {
      id: 'peak_power',
      title: `peak power, ${scales.power.unit}`,
      of: (point) => power(point.peak_power_kw),
      decimals: 1,
    },
    {
      id: 'control',
      title: 'reserve of control, rpm',
      of: (point) => plain(point.control_rpm),
      decimals: 0,
    },
    { id: 'interval', title: 'spring interval', of: (point) => plain(point.interval), decimals: 0 },
    { id: 'money', title: 'parts, USD', of: (point) => point.money_usd, decimals: 0 },
  ]
}

/** What is asked of points: a limit with so much left, or a figure of so much; absent ends are open. */
export interface Filter {
  readonly limit: number | undefined
  readonly least: number | undefined
}

/** Whether a point passes: what is not known does not. Pure. */
export function passes(point: SearchPoint, { limit, least }: Filter): boolean {
  if (limit === undefined || least === undefined) return true
  const left = point.left[limit]
  return left !== null && left !== undefined && left >= least
}

/** A straight scale over values, a little wider than they are, and round ticks on it. Pure. */
export function scaleOf(values: readonly number[], from: number, to: number) {
  const [least, most] = [Math.min(...values), Math.max(...values)]
  const room = 0.04 * Math.max(most - least, 1e-6)
  const [low, high] = [least - room, most + room]
  const span = high - low
  const steps = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000]
  const step = steps.find((each) => span / each <= 7) ?? 10000
  const first = Math.ceil(low / step)
  const count = Math.max(Math.floor(high / step) - first + 1, 0)
  const ticks = Array.from({ length: count }, (_, i) => Number(((first + i) * step).toFixed(6)))
  return { at: (value: number) => from + ((to - from) * (value - low)) / span, ticks }
}
