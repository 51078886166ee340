import type { TraceReport } from '../../api/client'
import { ChartFrame } from '../pictures/ChartFrame'
import { useSessionPart } from '../../model/useSession'
import { ticks } from '../strip/geometry'

/** One cycle at the speed looked at: pressure over volume, pressures at the valves, flows through them. */
export function Cycle({ trace }: { trace: TraceReport | undefined }) {
  const scale = useSessionPart(({ answer, system }) =>
    system === 'inch'
      ? answer?.analysis.scales.pressure_inch
      : answer?.analysis.scales.pressure_metric,
  )
  if (!trace || !scale) return null
  const shown = (kpa: readonly number[]) => kpa.map((value) => (value * 1e3) / scale.factor)
  const over = (values: readonly number[], x: readonly number[]): [number, number][] =>
    values.map((value, i) => [x[i] ?? 0, value])
  const { crank_deg: deg, volume_cc: volume } = trace
  const cylinder = shown(trace.cylinder_kpa)
  const loop = [...over(cylinder, volume), ...over(cylinder.slice(0, 1), volume)]
  // The loop of gas exchange is a sliver of the whole: it has a picture of its own.
  const exchange = deg.flatMap((at, i) => (at >= 130 && at <= 600 ? [i] : []))
  const pumping: [number, number][] = exchange.map((i) => [volume[i] ?? 0, cylinder[i] ?? 0])
  return (
    <div className="lobes cycle">
      <Chart
        name="pressure-volume"
        title={`Pressure over volume at ${String(Math.round(trace.rpm))} rpm`}
        x="cc"
        y={scale.unit}
        curves={[{ name: 'cylinder', points: loop, className: 'intake-line' }]}
      />
      <Chart
        name="pumping-loop"
        title="Its pumping loop"
        x="cc"
        y={scale.unit}
        curves={[{ name: 'cylinder', points: pumping, className: 'intake-line' }]}
        most={3.2 * quantile(pumping.map((p) => p[1]))}
      />
      <Chart
        name="port-pressures"
        title="At the valves"
        x="deg"
        y={scale.unit}
        curves={[
          {
            name: 'exhaust',
            points: over(shown(trace.exhaust_kpa), deg),
            className: 'exhaust-line',
          },
          { name: 'intake', points: over(shown(trace.intake_kpa), deg), className: 'intake-line' },
        ]}
      />
      <Chart
        name="valve-flows"
        title="Through the valves"
        x="deg"
        y="g/s"
        curves={[
          { name: 'exhaust', points: over(trace.exhaust_g_s, deg), className: 'exhaust-line' },
          { name: 'intake', points: over(trace.intake_g_s, deg), className: 'intake-line' },
        ]}
      />
    </div>
  )
}

interface ChartProps {
  readonly name: string
  readonly title: string
  readonly x: string
  readonly y: string
  readonly curves: readonly {
    readonly name: string
    readonly points: readonly (readonly [number, number])[]
    readonly className: string
  }[]
  /** Largest value shown; the curve is cut above it. */
  readonly most?: number
}

function Chart({ name, title, x, y, curves, most }: ChartProps) {
  const points = curves.flatMap((curve) => curve.points)
  const ends = (values: readonly number[]) =>
    values.reduce<[number, number]>(
      ([low, high], value) => [Math.min(low, value), Math.max(high, value)],
      [Infinity, -Infinity],
    )
  const [left, right] = ends(points.map((point) => point[0]))
  const [low, high] = ends(points.map((point) => point[1]))
  const [bottom, top] = [Math.min(0, low), most === undefined ? high : Math.min(high, most)]
  const cut = curves.map((curve) => ({
    ...curve,
    points: curve.points.map(([a, b]): [number, number] => [a, Math.min(b, top)]),
  }))
  return (
    <ChartFrame
      label={title}
      name={name}
      curves={cut}
      xAxis={{ unit: x, ticks: ticks(left, right, 4), from: left, to: right }}
      yAxis={{
        unit: y,
        ticks: ticks(bottom, top, 4),
        from: bottom,
        to: top + 0.04 * (top - bottom),
      }}
      caption={`${title} `}
    />
  )
}

/** The middle of some values. */
function quantile(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 1
}
