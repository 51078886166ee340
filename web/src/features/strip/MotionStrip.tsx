import type { StripReport } from '../../api/client'
import type { Frame } from './geometry'
import { TraceStrip } from './TraceStrip'
import type { TraceName } from './traces'
import type { RealMotion } from './useRealMotion'

/** A trace of both trains in motion at the speed looked at, on the strip's axis. */
export function MotionStrip({
  frame,
  report,
  trace,
  motion,
  waiting,
}: {
  frame: Frame
  report: StripReport
  trace: TraceName
  motion: RealMotion | undefined
  waiting: string
}) {
  if (!motion) return <p className="quiet gas-waiting">{waiting}</p>
  return (
    <>
      <TraceStrip frame={frame} report={report} trace={trace} motion={motion} />
      <p className="quiet gas-waiting">at {motion.rpm} rpm</p>
    </>
  )
}
