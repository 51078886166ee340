import type { StripReport } from '../../api/client'
import { nearest, useSpeed } from '../torque/speed'
import { useShownCurve } from '../torque/useCurve'
import type { Frame } from './geometry'
import { TraceStrip } from './TraceStrip'
import type { TraceName } from './traces'

/** A trace of the gas at the speed looked at, on the strip's axis. */
export function GasStrip({
  frame,
  report,
  trace,
}: {
  frame: Frame
  report: StripReport
  trace: TraceName
}) {
  const { curve, traces, failed, doing } = useShownCurve(undefined)
  const chosen = useSpeed()
  if (!curve || !traces)
    return <p className="quiet gas-waiting">{failed ? failed.reason : `${doing}…`}</p>
  const gas = traces[nearest(curve.speed_rpm, chosen, curve.peak_power_rpm)]
  return (
    <>
      <TraceStrip frame={frame} report={report} trace={trace} gas={gas} />
      <p className="quiet gas-waiting">{gas ? `at ${String(Math.round(gas.rpm))} rpm` : ''}</p>
    </>
  )
}
