import type { SearchPoint } from '../../api/client'
import type { Scales } from '../torque/chart'

/** A figure that points can be drawn over and filtered by. */
export interface PointFigure {
  readonly id: string
  readonly title: string
  /** Its value as shown; absent where it is not known. */
  readonly of: (point: SearchPoint) => number | undefined
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
    },
    {
      id: 'average_torque',
      title: `average torque, ${scales.torque.unit}`,
      of: (point) => torque(point.average_torque_nm),
    },
    {
      id: 'low_torque',
      title: `low-speed torque, ${scales.torque.unit}`,
      of: (point) => torque(point.low_torque_nm),
    },
    {
      id: 'peak_power',
      title: `peak power, ${scales.power.unit}`,
      of: (point) => power(point.peak_power_kw),
    },
    {
      id: 'control',
      title: 'reserve of control, rpm',
      of: (point) => plain(point.control_rpm),
    },
    { id: 'interval', title: 'spring interval', of: (point) => plain(point.interval) },
    { id: 'money', title: 'parts, USD', of: (point) => point.money_usd },
  ]
}

/** What is asked of points: so much left of a limit, a figure from here to there; anything where nothing is asked. */
export interface Filter {
  readonly limit: number | undefined
  readonly least: number | undefined
  /** Identifier of a figure. */
  readonly figure: string | undefined
  readonly from: number | undefined
  readonly to: number | undefined
}

/** Nothing is asked. */
export const EVERYTHING: Filter = {
  limit: undefined,
  least: undefined,
  figure: undefined,
  from: undefined,
  to: undefined,
}

/** Whether a point passes: what is not known does not. Pure. */
export function passes(
  point: SearchPoint,
  { limit, least, figure, from, to }: Filter,
  figures: readonly PointFigure[],
): boolean {
  const left = limit === undefined ? undefined : point.left[limit]
  if (limit !== undefined && least !== undefined && !(typeof left === 'number' && left >= least))
    return false
  const own = figures.find(({ id }) => id === figure)
  if (own === undefined || (from === undefined && to === undefined)) return true
  const value = own.of(point)
  return value !== undefined && value >= (from ?? -Infinity) && value <= (to ?? Infinity)
}
