import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import { useLengthScale } from '../../model/useSession'
import type { SideName } from './useTrain'
import { SIDES, useTrain } from './useTrain'
import './motion.css'

/** Lift and duration as rigid parts promise them and as the valve gets them, side by side. */
export function RunningCharts() {
  const { train } = useTrain()
  const scale = useLengthScale()
  if (!train || !scale) return null
  const length = (mm: number) => (mm * 1e-3) / scale.factor
  const pairs = (x: readonly number[], y: readonly number[]) =>
    x.map((value, i): [number, number] => [value, y[i] ?? 0])
  const both = (
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
          name: `${side}, rigid`,
          points: pairs(x, ideal),
          ink: side,
          beside: true,
        },
        { name: side, points: pairs(x, running), ink: side },
      ]
    })
  const lift = both((side) => ({
    x: train[side].cam_deg,
    ideal: train[side].ideal_mm.map(length),
    running: train[side].running_mm.map(length),
  }))
  const durations = both((side) => {
    const { valve_mm: valve, ideal_deg: ideal, running_deg: running } = train[side].durations
    return { x: valve.map(length), ideal, running }
  })
  const reach = Math.max(...SIDES.flatMap((side) => train[side].cam_deg.map(Math.abs)))
  return (
    <div className="lobes">
      <Chart
        label="Valve lift as it runs; dotted: rigid parts"
        name="running-lift"
        curves={lift}
        x={{ unit: 'cam deg', from: -reach, to: reach }}
        y={{ unit: scale.unit }}
      />
      {durations.some((curve) => curve.points.length > 1) ? (
        <Chart
          label="Duration over valve lift; dotted: rigid parts"
          name="running-duration"
          curves={durations}
          x={{ unit: `valve lift, ${scale.unit}` }}
          y={{ unit: 'crank deg' }}
        />
      ) : null}
    </div>
  )
}
