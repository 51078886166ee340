import type { ValveDrawing } from '../../api/client'
import { useCandidate, useLengthScale, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'

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
  const curves: Curve[] = [
    { name: 'in', points: line(valve.flow), ink: side, marked: true },
    { name: 'reverse', points: line(valve.flow_reverse), ink: side, beside: true },
  ]
  return (
    <Chart
      label={`${side} flow over valve lift`}
      name={`${side}-flow`}
      curves={curves.filter(({ points }) => points.length > 0)}
      x={{ unit: length.unit, from: 0 }}
      y={{ unit: flow.unit, from: 0 }}
      marks={net === undefined ? [] : [{ x: net, text: 'net lift' }]}
      height={150}
    />
  )
}
