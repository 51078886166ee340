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
import type { RealMotion } from './useRealMotion'

interface Props {
  readonly frame: Frame
  readonly report: StripReport
  readonly beside: StripReport | undefined
  /** The valves as they move at one speed, in the place of their running lift. */
  readonly motion?: RealMotion | undefined
  /** Without axes and words. */
  readonly bare: boolean
  readonly atOnce: boolean
}

/** Lifts, piston, axes: everything on the strip that does not follow the crank angle. */
export const Curves = memo(function Curves({ frame, report, beside, motion, bare, atOnce }: Props) {
  const curves = useMemo(() => curvesOf(report, motion), [report, motion])
  const other = useMemo(() => (beside ? curvesOf(beside) : undefined), [beside])
  const picture: Picture = useMemo(
    () => ({ kind: 'curves', frame, curves, beside: other }),
    [frame, curves, other],
  )
  return (
    <>
      {bare ? null : <Ground frame={frame} thin={thinLine(curves, motion)} />}
      <Layer
        picture={picture}
        label="Valve lifts hang down, the piston comes up from below"
        atOnce={atOnce}
      />
    </>
  )
})

const Ground = memo(function Ground({ frame, thin }: { frame: Frame; thin: string | undefined }) {
  const scale = useLengthScale()
  const paint = useCallback(
    (sheet: HTMLCanvasElement, pen: Pen, dense: number, ink: Ink) => {
      fit(sheet, pen, dense, frame)
      const unit = { name: scale?.unit ?? 'mm', mm: (scale?.factor ?? 1e-3) * 1e3 }
      paintGround(pen, frame, ink, unit, thin)
    },
    [frame, scale, thin],
  )
  return <Canvas width={frame.width} height={frame.height} paint={paint} />
})

/** Opening a valve takes its lift from its gap: their sum is the crown as the valve sees it. */
export function curvesOf(report: StripReport, motion?: RealMotion): StripCurves {
  const seen = (lift: readonly number[], gap: readonly number[] | null | undefined) =>
    gap?.map((left, deg) => left + (lift[deg] ?? 0))
  return {
    intake: report.intake_lift_mm,
    exhaust: report.exhaust_lift_mm,
    intakeRunning: motion?.lift.intake ?? report.intake_running_mm ?? undefined,
    exhaustRunning: motion?.lift.exhaust ?? report.exhaust_running_mm ?? undefined,
    crown: seen(report.intake_lift_mm, report.intake_clearance_mm) ?? report.piston_mm,
    crownOfExhaust: seen(report.exhaust_lift_mm, report.exhaust_clearance_mm),
  }
}

/** What the thin line beside the designed one is, in words. Pure. */
function thinLine(curves: StripCurves, motion: RealMotion | undefined): string | undefined {
  if (motion) return `in motion at ${String(motion.rpm)} rpm`
  return curves.intakeRunning ? 'running lift' : undefined
}
