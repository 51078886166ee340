import { memo, useCallback, useMemo } from 'react'
import type { StripReport } from '../../api/client'
import { useLengthScale } from '../../model/useSession'
import { Canvas } from './Canvas'
import type { Frame } from './geometry'
import { paintStrip } from './paint'
import type { Ink, StripCurves } from './paint'

/** Lifts, piston, axes: everything on the strip that does not follow the crank angle. */
export const Curves = memo(function Curves({
  frame,
  report,
  beside,
  bare,
}: {
  frame: Frame
  report: StripReport
  beside: StripReport | undefined
  bare: boolean
}) {
  const scale = useLengthScale()
  const curves = useMemo(() => curvesOf(report), [report])
  const other = useMemo(() => (beside ? curvesOf(beside) : undefined), [beside])
  const paint = useCallback(
    (pen: CanvasRenderingContext2D, ink: Ink) => {
      paintStrip(
        pen,
        frame,
        ink,
        curves,
        { name: scale?.unit ?? 'mm', mm: (scale?.factor ?? 1e-3) * 1e3 },
        other,
        bare,
      )
    },
    [frame, curves, other, scale, bare],
  )
  return (
    <Canvas
      width={frame.width}
      height={frame.height}
      label="Valve lifts hang down, the piston comes up from below"
      paint={paint}
    />
  )
})

/** Opening a valve takes its lift from its gap: their sum is the crown as the valve sees it. */
export function curvesOf(report: StripReport): StripCurves {
  const seen = (lift: readonly number[], gap: readonly number[] | null | undefined) =>
    gap?.map((left, deg) => left + (lift[deg] ?? 0))
  return {
    intake: report.intake_lift_mm,
    exhaust: report.exhaust_lift_mm,
    intakeRunning: report.intake_running_mm ?? undefined,
    exhaustRunning: report.exhaust_running_mm ?? undefined,
    crown: seen(report.intake_lift_mm, report.intake_clearance_mm) ?? report.piston_mm,
    crownOfExhaust: seen(report.exhaust_lift_mm, report.exhaust_clearance_mm),
  }
}
