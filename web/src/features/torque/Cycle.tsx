import type { TraceReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve, Ink } from '../charts/series'

/** The strokes of a cycle from firing top dead centre; volume moves one way in each. */
const STROKES: readonly { name: string; from: number; to: number; ink: Ink; beside?: true }[] = [
  { name: 'power', from: 0, to: 180, ink: 'three' },
  { name: 'exhaust', from: 180, to: 360, ink: 'exhaust' },
  { name: 'intake', from: 360, to: 540, ink: 'intake' },
  { name: 'compression', from: 540, to: 720, ink: 'plain', beside: true },
]

/** One cycle at the speed looked at: pressure over volume, pressures at the valves, flows through them. */
export function Cycle({ trace }: { trace: TraceReport | undefined }) {
  const scale = useSessionPart(({ answer, system }) =>
    system === 'inch'
      ? answer?.analysis.scales.pressure_inch
      : answer?.analysis.scales.pressure_metric,
  )
  if (!trace || !scale) return null
  const { crank_deg: deg, volume_cc: volume } = trace
  const shown = (kpa: readonly number[]) => kpa.map((value) => (value * 1e3) / scale.factor)
  const overCrank = (values: readonly number[]) =>
    values.map((value, i): [number, number] => [deg[i] ?? 0, value])
  const cylinder = shown(trace.cylinder_kpa)
  const strokes = STROKES.map(({ from, to, ...stroke }): Curve => ({
    ...stroke,
    points: deg.flatMap((at, i): [number, number][] =>
      at >= from && at <= to ? [[volume[i] ?? 0, cylinder[i] ?? 0]] : [],
    ),
  }))
  const exchange = strokes.filter(({ name }) => name === 'exhaust' || name === 'intake')
  const pumping = exchange.flatMap(({ points }) => points.map(([, pressure]) => pressure))
  return (
    <div className="lobes cycle">
      <Chart
        name="pressure-volume"
        label={`Pressure over volume at ${String(Math.round(trace.rpm))} rpm`}
        x={{ unit: 'cc' }}
        y={{ unit: scale.unit }}
        curves={strokes}
      />
      <Chart
        name="pumping-loop"
        label="Its pumping loop"
        x={{ unit: 'cc' }}
        y={{ unit: scale.unit, to: 3.2 * middleOf(pumping) }}
        curves={exchange}
      />
      <Chart
        name="port-pressures"
        label="Pressures at the valves"
        x={{ unit: 'deg', from: 0, to: 720 }}
        y={{ unit: scale.unit }}
        curves={[
          { name: 'exhaust', points: overCrank(shown(trace.exhaust_kpa)), ink: 'exhaust' },
          { name: 'intake', points: overCrank(shown(trace.intake_kpa)), ink: 'intake' },
        ]}
      />
      <Chart
        name="valve-flows"
        label="Flows through the valves"
        x={{ unit: 'deg', from: 0, to: 720 }}
        y={{ unit: 'g/s' }}
        curves={[
          { name: 'exhaust', points: overCrank(trace.exhaust_g_s), ink: 'exhaust' },
          { name: 'intake', points: overCrank(trace.intake_g_s), ink: 'intake' },
        ]}
      />
    </div>
  )
}

/** The middle of some values. */
function middleOf(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 1
}
