import { ChartFrame } from '../pictures/ChartFrame'
import type { Curve } from '../pictures/ChartFrame'
import { useLengthScale } from '../../model/useSession'
import { ticks } from '../strip/geometry'
import type { SideName } from './useTrain'
import { SIDES, useTrain } from './useTrain'

/** Lift and duration as rigid parts promise them and as the valve gets them, side by side. */
export function RunningCharts() {
  const { train } = useTrain()
  const scale = useLengthScale()
  if (!train || !scale) return null
  const length = (mm: number) => (mm * 1e-3) / scale.factor
  const pairs = (x: readonly number[], y: readonly number[]) =>
    x.map((value, i): [number, number] => [value, y[i] ?? 0])
  const both = (
    name: string,
    of: (side: SideName) => {
      x: readonly number[]
      ideal: readonly number[]
      running: readonly number[]
    },
  ): Curve[] =>
    [...SIDES].reverse().flatMap((side) => {
      const { x, ideal, running } = of(side)
      return [
        {
          name: `${side} ${name}, rigid`,
          points: pairs(x, ideal),
          className: `${side}-line lobe-beside`,
        },
        { name: `${side} ${name}, running`, points: pairs(x, running), className: `${side}-line` },
      ]
    })
  const lift = both('lift', (side) => ({
    x: train[side].cam_deg,
    ideal: train[side].ideal_mm.map(length),
    running: train[side].running_mm.map(length),
  }))
  const durations = both('duration', (side) => {
    const { valve_mm: valve, ideal_deg: ideal, running_deg: running } = train[side].durations
    return { x: valve.map(length), ideal, running }
  })
  const reach = Math.max(...SIDES.flatMap((side) => train[side].cam_deg.map(Math.abs)))
  return (
    <div className="lobes">
      <RunningChart
        label="Valve lift, running"
        name="running-lift"
        curves={lift}
        from={-reach}
        to={reach}
        xUnit="cam deg"
        yUnit={scale.unit}
        caption="Valve lift as it runs; thin and dotted: rigid parts "
      />
      {durations.some((curve) => curve.points.length > 1) ? (
        <RunningChart
          label="Duration over valve lift, running"
          name="running-duration"
          curves={durations}
          from={0}
          xUnit={`valve lift, ${scale.unit}`}
          yUnit="crank deg"
          caption="Duration over valve lift; thin and dotted: rigid parts "
        />
      ) : null}
    </div>
  )
}

function RunningChart({
  label,
  name,
  curves,
  from,
  to,
  xUnit,
  yUnit,
  caption,
}: {
  label: string
  name: string
  curves: readonly Curve[]
  from: number
  to?: number
  xUnit: string
  yUnit: string
  caption: string
}) {
  const points = curves.flatMap((curve) => curve.points)
  const right = to ?? Math.max(...points.map((point) => point[0]))
  const most = 1.04 * Math.max(...points.map((point) => point[1]))
  return (
    <ChartFrame
      label={label}
      name={name}
      curves={curves}
      xAxis={{ unit: xUnit, ticks: ticks(from, right, 4), from, to: right }}
      yAxis={{ unit: yUnit, ticks: ticks(0, most, 4), from: 0, to: most }}
      caption={caption}
    />
  )
}
