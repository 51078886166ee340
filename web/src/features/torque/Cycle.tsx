import { useMemo } from 'react'
import type { Scale, TraceReport } from '../../api/client'
import { scrub, useScrub } from '../../model/scrub'
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
  const pressures = useMemo(
    () =>
      trace && scale
        ? bothOf(trace, shownIn(scale, trace.intake_kpa), shownIn(scale, trace.exhaust_kpa))
        : [],
    [trace, scale],
  )
  const flows = useMemo(
    () => (trace ? bothOf(trace, trace.intake_g_s, trace.exhaust_g_s) : []),
    [trace],
  )
  if (!trace || !scale) return null
  const { crank_deg: deg, volume_cc: volume } = trace
  const cylinder = shownIn(scale, trace.cylinder_kpa)
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
      <OverCrank
        name="port-pressures"
        label="Pressures at the valves"
        unit={scale.unit}
        curves={pressures}
      />
      <OverCrank name="valve-flows" label="Flows through the valves" unit="g/s" curves={flows} />
    </div>
  )
}

/** A chart over the crank: the strip's angle stands on it, and it moves the strip's. */
function OverCrank({
  name,
  label,
  unit,
  curves,
}: {
  name: string
  label: string
  unit: string
  curves: readonly Curve[]
}) {
  const angle = useScrub()
  return (
    <Chart
      name={name}
      label={label}
      x={CYCLE}
      y={{ unit }}
      curves={curves}
      at={angle}
      onAt={(deg) => scrub.to(Math.min(deg, 719.9))}
    />
  )
}

const CYCLE = { unit: 'deg', from: 0, to: 720 } as const

function shownIn(scale: Scale, kpa: readonly number[]): number[] {
  return kpa.map((value) => (value * 1e3) / scale.factor)
}

/** Both sides of a trace over its crank angles. */
function bothOf(
  { crank_deg: deg }: TraceReport,
  intake: readonly number[],
  exhaust: readonly number[],
): Curve[] {
  const over = (values: readonly number[]) =>
    values.map((value, i): [number, number] => [deg[i] ?? 0, value])
  return [
    { name: 'exhaust', points: over(exhaust), ink: 'exhaust' },
    { name: 'intake', points: over(intake), ink: 'intake' },
  ]
}

/** The middle of some values. */
function middleOf(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 1
}
