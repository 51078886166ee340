import { memo, useMemo } from 'react'
import type { StripReport } from '../../api/client'
import { useSessionState } from '../session/useSession'
import type { Frame } from './geometry'
import { angleTicks, areaPath, linePath, ticks, xOf, yOf } from './geometry'

const STROKES: readonly { name: string; centre: number }[] = [
  { name: 'Power', centre: 90 },
  { name: 'Exhaust', centre: 270 },
  { name: 'Intake', centre: 450 },
  { name: 'Compression', centre: 630 },
]

/** Lifts, piston, axes: everything on the strip that does not follow the crank angle. */
export const Curves = memo(function Curves({ frame, report }: { frame: Frame; report: StripReport }) {
  const crown = useMemo(() => crowns(report), [report])
  const floor = frame.depth
  return (
    <>
      <rect className="head" x={frame.left} y={frame.top - 8} width={frame.width - frame.left - frame.right} height={8} />
      <Axes frame={frame} />
      <path className="crown" d={areaPath(frame, crown.intake, floor)} />
      {crown.exhaust ? <path className="crown-exhaust" d={linePath(frame, crown.exhaust)} /> : null}
      <path className="exhaust-area" d={areaPath(frame, report.exhaust_lift_mm, 0)} />
      <path className="intake-area" d={areaPath(frame, report.intake_lift_mm, 0)} />
      <path className="exhaust-line" d={linePath(frame, report.exhaust_lift_mm)} />
      <path className="intake-line" d={linePath(frame, report.intake_lift_mm)} />
      <text className="head-label" x={frame.left} y={frame.top - 12}>closed valve</text>
    </>
  )
})

/** The crown as each valve sees it: its lift plus what is left to the piston. */
function crowns(report: StripReport): { intake: number[]; exhaust: number[] | undefined } {
  const seen = (lift: number[], gap: number[] | null | undefined) => gap?.map((left, deg) => left + (lift[deg] ?? 0))
  return {
    intake: seen(report.intake_lift_mm, report.intake_clearance_mm) ?? report.piston_mm,
    exhaust: seen(report.exhaust_lift_mm, report.exhaust_clearance_mm),
  }
}

function Axes({ frame }: { frame: Frame }) {
  const { answer, system } = useSessionState()
  const scale = system === 'inch' ? answer?.analysis.scales.length_inch : answer?.analysis.scales.length_metric
  const perUnit = scale ? scale.factor * 1e3 : 1
  const bottom = frame.height - frame.bottom
  return (
    <g className="axes">
      {ticks(0, frame.depth / perUnit, 4).map((tick) => (
        <g key={tick}>
          <line x1={frame.left} x2={frame.width - frame.right} y1={yOf(frame, tick * perUnit)} y2={yOf(frame, tick * perUnit)} />
          <text x={frame.left - 6} y={yOf(frame, tick * perUnit) + 4} textAnchor="end">
            {scale?.unit === 'in' ? tick.toFixed(1).replace(/^0/, '') : String(Math.round(tick))}
          </text>
        </g>
      ))}
      {angleTicks(frame).map((deg) => (
        <g key={deg}>
          <line x1={xOf(frame, deg)} x2={xOf(frame, deg)} y1={frame.top} y2={bottom} />
          <text x={xOf(frame, deg)} y={bottom + 15} textAnchor={deg === 720 ? 'end' : 'middle'}>{deg}</text>
        </g>
      ))}
      {STROKES.filter((s) => s.centre > frame.from && s.centre < frame.to).map((stroke) => (
        <text key={stroke.name} className="stroke-name" x={xOf(frame, stroke.centre)} y={bottom - 6} textAnchor="middle">
          {stroke.name}
        </text>
      ))}
    </g>
  )
}
