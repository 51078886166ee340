import { memo, useMemo, useState } from 'react'
import type { StripReport } from '../../api/client'
import { useLengthScale } from '../session/useSession'
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
  const { intake_lift_mm: intake, exhaust_lift_mm: exhaust, intake_clearance_mm, exhaust_clearance_mm, piston_mm } = report
  // Opening a valve takes its lift from its gap: their sum, the crown as the valve sees it, stands still
  // while a cam is dragged.
  const crown = useSteady(useMemo(() => seen(intake, intake_clearance_mm) ?? piston_mm, [intake, intake_clearance_mm, piston_mm]))
  const crownOfExhaust = useSteady(useMemo(() => seen(exhaust, exhaust_clearance_mm), [exhaust, exhaust_clearance_mm]))
  return (
    <>
      <rect className="head" x={frame.left} y={frame.top - 8} width={frame.width - frame.left - frame.right} height={8} />
      <Axes frame={frame} />
      <Area className="crown" frame={frame} curve={crown} edge={frame.depth} />
      {crownOfExhaust ? <Line className="crown-exhaust" frame={frame} curve={crownOfExhaust} /> : null}
      <Area className="exhaust-area" frame={frame} curve={exhaust} edge={0} />
      <Area className="intake-area" frame={frame} curve={intake} edge={0} />
      <Line className="exhaust-line" frame={frame} curve={exhaust} />
      <Line className="intake-line" frame={frame} curve={intake} />
      <text className="head-label" x={frame.left} y={frame.top - 12}>closed valve</text>
    </>
  )
})

interface CurveProps {
  readonly className: string
  readonly frame: Frame
  readonly curve: readonly number[]
}

const Line = memo(function Line({ className, frame, curve }: CurveProps) {
  return <path className={className} d={linePath(frame, curve)} />
})

const Area = memo(function Area({ className, frame, curve, edge }: CurveProps & { edge: number }) {
  return <path className={className} d={areaPath(frame, curve, edge)} />
})

/** The crown as a valve sees it: its lift plus what is left to the piston. */
function seen(lift: readonly number[], gap: readonly number[] | null | undefined): number[] | undefined {
  return gap?.map((left, deg) => left + (lift[deg] ?? 0))
}

/** The last curve that differed from the one before by more than the rounding of its parts. */
function useSteady<T extends readonly number[] | undefined>(curve: T): T {
  const [kept, keep] = useState(curve)
  const same = kept !== undefined && curve?.length === kept.length && curve.every((value, i) => Math.abs(value - (kept[i] ?? 0)) < 1e-3)
  if (!same && kept !== curve) keep(curve)
  return same ? kept : curve
}

const Axes = memo(function Axes({ frame }: { frame: Frame }) {
  const scale = useLengthScale()
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
})
