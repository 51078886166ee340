import { memo, useCallback, useMemo } from 'react'
import type { StripReport } from '../../api/client'
import { useLengthScale } from '../../model/useSession'
import { Canvas } from './Canvas'
import type { Frame } from './geometry'
import { Layer } from './Layer'
import { paintGround } from './paint'
import type { Ink, Pen, StripCurves } from './paint'
import { fit } from './picture'
import type { Picture } from './picture'

interface Props {
  readonly frame: Frame
  readonly report: StripReport
  readonly beside: StripReport | undefined
  /** Without axes and words. */
  readonly bare: boolean
  readonly atOnce: boolean
}

/** Lifts, piston, axes: everything on the strip that does not follow the crank angle. */
export const Curves = memo(function Curves({ frame, report, beside, bare, atOnce }: Props) {
  const curves = useMemo(() => curvesOf(report), [report])
  const other = useMemo(() => (beside ? curvesOf(beside) : undefined), [beside])
  const picture: Picture = useMemo(
    () => ({ kind: 'curves', frame, curves, beside: other }),
    [frame, curves, other],
  )
  return (
    <>
      {bare ? null : <Ground frame={frame} isRunningKnown={curves.intakeRunning !== undefined} />}
      <Layer
        picture={picture}
        label="Valve lifts hang down, the piston comes up from below"
        atOnce={atOnce}
      />
    </>
  )
})

const Ground = memo(function Ground({
  frame,
  isRunningKnown,
}: {
  frame: Frame
  isRunningKnown: boolean
}) {
  const scale = useLengthScale()
  const paint = useCallback(
    (sheet: HTMLCanvasElement, pen: Pen, dense: number, ink: Ink) => {
      fit(sheet, pen, dense, frame)
      const unit = { name: scale?.unit ?? 'mm', mm: (scale?.factor ?? 1e-3) * 1e3 }
      paintGround(pen, frame, ink, unit, isRunningKnown)
    },
    [frame, scale, isRunningKnown],
  )
  return <Canvas width={frame.width} height={frame.height} paint={paint} />
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
