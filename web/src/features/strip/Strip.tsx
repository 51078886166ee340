import { useMemo, useRef, useState } from 'react'
import type { StripReport } from '../../api/client'
import { useCandidate, useSessionPart } from '../session/useSession'
import { Needs } from '../fields/Needs'
import { Cursor } from './Cursor'
import { Curves } from './Curves'
import type { Frame, Zoom } from './geometry'
import { WHOLE, degOf, zoomed } from './geometry'
import { GasStrip } from './GasStrip'
import { Handles } from './Handles'
import { BesideNote } from './BesideNote'
import { Readout } from './Readout'
import { StripExport } from './StripExport'
import { StripTools, TraceChoice } from './StripTools'
import { Tightest } from './Tightest'
import { TraceStrip } from './TraceStrip'
import type { TraceName } from './traces'
import { traceOf } from './traces'
import { useScrubGestures } from './useScrubGestures'
import { useWidth } from './useWidth'

const HEIGHT = 226

/** The hanging strip: depth below the closed valve over one cycle of the crank. */
export function Strip() {
  const candidate = useCandidate()
  const handles = useSessionPart((state) => state.answer?.handles)
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder)
  const [zoom, setZoom] = useState<Zoom>(WHOLE)
  const [trace, setTrace] = useState<TraceName>('gap')
  const strip = candidate?.strip
  const report: StripReport | undefined = strip?.state === 'done' ? strip : undefined
  const beside = useSessionPart((state) => state.answer?.beside)
  const besideReport = beside?.strip.state === 'done' ? beside.strip : undefined
  const depth = Math.max(depthOf(report), besideReport ? depthOf(besideReport) : 0)
  const frame: Frame = useMemo(
    () => ({ width, height: HEIGHT, left: 46, right: 14, top: 26, bottom: 22, from: zoom.from, to: zoom.to, depth }),
    [width, zoom, depth],
  )
  const gestures = useScrubGestures(frame, (centre, factor) => { setZoom((now) => zoomed(now, centre, factor)) })
  return (
    <section className="panel strip" aria-label="Valves and piston over the crank" ref={holder}>
      <div className="strip-tools">
        {report ? <Readout report={report} /> : <span className="quiet">Valves and piston over one cycle</span>}
        <span className="grow" />
        <StripTools zoom={zoom} onZoom={setZoom} />
      </div>
      {report && handles && candidate ? (
        <>
          <div className="strip-plot layered" style={{ height: HEIGHT }} {...gestures} onDoubleClick={(event) => { setZoom((now) => zoomed(now, degOf(frame, event.nativeEvent.offsetX), 0.5)) }}>
            <Curves frame={frame} report={report} beside={besideReport} />
            <svg width={width} height={HEIGHT} aria-hidden="true">
              <Tightest frame={frame} report={report} />
              <Cursor frame={frame} />
            </svg>
          </div>
          <Handles frame={frame} handles={handles} candidate={candidate.id} />
          <div className="trace-head">
            <TraceChoice trace={trace} onTrace={setTrace} />
            <span className="grow" />
            {beside ? <BesideNote beside={beside} /> : null}
            <StripExport report={report} name={candidate.name} holder={holder} />
          </div>
          {traceOf(trace).ofGas === true ? <GasStrip frame={frame} report={report} trace={trace} /> : <TraceStrip frame={frame} report={report} trace={trace} />}
        </>
      ) : (
        <div className="strip-waiting">{strip?.state === 'failed' ? <Needs what="The strip is drawn" reason={strip.reason} needs={strip.needs} /> : 'Working out the first picture…'}</div>
      )}
    </section>
  )
}

/** A little more than the higher lift, so that the piston's approach is seen to scale; whole millimetres, so that a drag does not stretch the picture. */
function depthOf(report: StripReport | undefined): number {
  if (!report) return 16
  const most = [...report.intake_lift_mm, ...report.exhaust_lift_mm].reduce((a, b) => Math.max(a, b), 6)
  return Math.ceil(1.1 * most)
}
