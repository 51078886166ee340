import type { StripReport } from '../../api/client'
import { onCurve, useScrub } from '../../model/scrub'
import { readLength } from '../../model/figures'
import { useLengthScale } from '../../model/useSession'

/** Lifts and gaps at the scrubbed angle, in words and figures. */
export function Readout({ report }: { report: StripReport }) {
  const angle = useScrub()
  const scale = useLengthScale()
  if (!scale) return null
  const read = (curve: readonly number[] | null | undefined) =>
    curve ? readLength(onCurve(curve, angle), scale) : 'unknown'
  // The unit stands once, at the end of the line.
  const bare = (curve: readonly number[] | null | undefined) =>
    read(curve).replace(` ${scale.unit}`, '')
  const running = (curve: readonly number[] | null | undefined) =>
    curve ? `, running ${bare(curve)}` : ''
  return (
    <div className="readout" aria-live="off">
      <span className="intake-text">
        <b>Intake</b> rigid lift {bare(report.intake_lift_mm)}
        {running(report.intake_running_mm)}, gap {read(report.intake_clearance_mm)}
      </span>
      <span className="exhaust-text">
        <b>Exhaust</b> rigid lift {bare(report.exhaust_lift_mm)}
        {running(report.exhaust_running_mm)}, gap {read(report.exhaust_clearance_mm)}
      </span>
    </div>
  )
}
