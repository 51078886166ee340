import { Button, Segmented, Select } from 'antd'
import { useRef, useState } from 'react'
import type { StripReport } from '../../api/client'
import { useSessionState } from '../session/useSession'
import { Cursor } from './Cursor'
import { Curves } from './Curves'
import { Handles } from './Handles'
import type { Frame, Zoom } from './geometry'
import { OVERLAP, WHOLE, degOf, zoomed } from './geometry'
import { Readout } from './Readout'
import { Tightest } from './Tightest'
import { TraceStrip } from './TraceStrip'
import type { TraceName } from './traces'
import { TRACES } from './traces'
import { useScrubGestures } from './useScrubGestures'
import { useWidth } from './useWidth'

const HEIGHT = 250

/** The hanging strip: depth below the closed valve over one cycle of the crank. */
export function Strip() {
  const { answer } = useSessionState()
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder)
  const [zoom, setZoom] = useState<Zoom>(WHOLE)
  const [trace, setTrace] = useState<TraceName>('gap')
  const candidate = answer?.analysis.candidates[0]
  const strip = candidate?.strip
  const report: StripReport | undefined = strip?.state === 'done' ? strip : undefined
  const frame: Frame = {
    width, height: HEIGHT, left: 46, right: 14, top: 26, bottom: 22, from: zoom.from, to: zoom.to, depth: depthOf(report),
  }
  const gestures = useScrubGestures(frame, (centre, factor) => { setZoom((now) => zoomed(now, centre, factor)) })
  return (
    <section className="panel strip" aria-label="Valves and piston over the crank" ref={holder}>
      <div className="strip-tools">
        {report ? <Readout report={report} /> : <span className="quiet">Valves and piston over one cycle</span>}
        <span className="grow" />
        <Segmented
          size="small"
          aria-label="Part of the cycle"
          options={[{ label: 'whole cycle', value: 'whole' }, { label: 'overlap', value: 'overlap' }]}
          value={zoom.to - zoom.from >= 720 ? 'whole' : 'overlap'}
          onChange={(value) => { setZoom(value === 'whole' ? WHOLE : OVERLAP) }}
        />
        <Button size="small" aria-label="Zoom in" onClick={() => { setZoom((now) => zoomed(now, (now.from + now.to) / 2, 0.6)) }}>+</Button>
        <Button size="small" aria-label="Zoom out" onClick={() => { setZoom((now) => zoomed(now, (now.from + now.to) / 2, 1.6)) }}>−</Button>
      </div>
      {report && answer ? (
        <>
          <div className="strip-plot" {...gestures} onDoubleClick={(event) => { setZoom((now) => zoomed(now, degOf(frame, event.nativeEvent.offsetX), 0.5)) }}>
            <svg width={width} height={HEIGHT} role="img" aria-label="Valve lifts hang down, the piston comes up from below">
              <Curves frame={frame} report={report} />
              <Tightest frame={frame} report={report} />
              <Cursor frame={frame} />
            </svg>
          </div>
          <Handles frame={frame} handles={answer.handles} candidate={candidate?.id ?? ''} />
          <div className="trace-head">
            <Select
              size="small"
              variant="borderless"
              aria-label="Trace below the strip"
              value={trace}
              onChange={setTrace}
              options={TRACES.map((t) => ({ value: t.name, label: t.label }))}
            />
          </div>
          <TraceStrip frame={frame} report={report} trace={trace} />
        </>
      ) : (
        <Waiting reason={strip?.state === 'failed' ? strip.reason : undefined} />
      )}
    </section>
  )
}

function Waiting({ reason }: { reason: string | undefined }) {
  return (
    <div className="strip-waiting">
      {reason === undefined ? 'Working out the first picture…' : <>The strip cannot be drawn yet: {reason}.</>}
    </div>
  )
}

/** A little more than the higher lift, so that the piston's approach is seen to scale. */
function depthOf(report: StripReport | undefined): number {
  if (!report) return 16
  return 1.12 * Math.max(6, ...report.intake_lift_mm, ...report.exhaust_lift_mm)
}
