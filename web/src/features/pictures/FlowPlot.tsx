import type { ValveDrawing } from '../../api/client'
import { useCandidate, useLengthScale, useSessionPart } from '../../model/useSession'
import { ticks } from '../strip/geometry'
import { ChartFrame } from './ChartFrame'

/** Flow over lift, both directions, with this cam's net lift marked: what is past the knee buys little. */
export function FlowPlot({ valve, side }: { valve: ValveDrawing; side: 'intake' | 'exhaust' }) {
  const length = useLengthScale()
  const flow = useSessionPart(({ answer, system }) =>
    system === 'inch' ? answer?.analysis.scales.flow_inch : answer?.analysis.scales.flow_metric,
  )
  const lift = useCandidate()?.lift
  if (!length || !flow || valve.flow.length === 0) return null
  const x = (mm: number) => (mm * 1e-3) / length.factor
  const y = (litres: number) => (litres * 1e-3) / flow.factor
  const net = lift?.state === 'done' ? x(lift[side].net_mm) : undefined
  const line = (points: ValveDrawing['flow']): [number, number][] =>
    points.map((p) => [x(p.lift_mm), y(p.flow_l_per_s)])
  const curves = [
    { name: 'in', points: line(valve.flow), className: `${side}-line` },
    { name: 'reverse', points: line(valve.flow_reverse), className: `${side}-line thin` },
  ].filter((c) => c.points.length > 0)
  const most = Math.max(...curves.flatMap((c) => c.points.map((p) => p[1])))
  const right = Math.max(net ?? 0, ...curves.flatMap((c) => c.points.map((p) => p[0])))
  return (
    <ChartFrame
      label={`${side} flow over valve lift`}
      name={`${side}-flow`}
      curves={curves}
      xAxis={{ unit: length.unit, ticks: ticks(0, right, 4), from: 0, to: right * 1.04 }}
      yAxis={{ unit: flow.unit, ticks: ticks(0, most, 4), from: 0, to: most * 1.08 }}
      mark={net === undefined ? undefined : { x: net, text: 'net lift' }}
    />
  )
}
