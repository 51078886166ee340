import { Button } from 'antd'
import { memo, useCallback, useMemo, useRef } from 'react'
import type { StripReport } from '../../api/client'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { Needs } from '../fields/Needs'
import { useHeld } from '../../model/held'
import { Cursor } from './Cursor'
import { Curves } from './Curves'
import type { Frame, Zoom } from './geometry'
import { WHOLE, degOf, zoomed } from './geometry'
import { GasStrip } from './GasStrip'
import { MotionStrip } from './MotionStrip'
import { Handles } from './Handles'
import { BesideNote } from './BesideNote'
import { Readout } from './Readout'
import { StripExport } from './StripExport'
import { StripTools, TraceChoice } from './StripTools'
import { Tightest } from './Tightest'
import { TraceStrip } from './TraceStrip'
import { traceOf } from './traces'
import { useScrubGestures } from './useScrubGestures'
import { useRealMotion } from './useRealMotion'
import type { StripView } from './useStripView'
import { useWidth } from '../../model/useWidth'
import './strip.css'

const TALL = { height: 226, left: 46, right: 14, top: 26, bottom: 22 }
const SLIM = { height: 68, left: 8, right: 8, top: 5, bottom: 5 }

interface Props {
  readonly view: StripView
  /** Whether its height can be chosen; on paper it cannot. */
  readonly sized?: boolean
}

/** The hanging strip: depth below the closed valve over one cycle of the crank, tall or slim. */
export function Strip({ view, sized = true }: Props) {
  const candidate = useCandidate()
  const handles = useSessionPart((state) => state.answer?.handles)
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder)
  const { tall, onTall } = view
  const chosenZoom = useHeld(view.zoom)
  const trace = useHeld(view.trace)
  const { of } = traceOf(trace)
  const { motion, waiting } = useRealMotion(tall && of === 'motion')
  const zoom = tall ? chosenZoom : WHOLE
  const onZoom = useCallback(
    (change: (now: Zoom) => Zoom) => {
      if (tall) view.zoom.set(change(view.zoom.read()))
    },
    [tall, view.zoom],
  )
  const strip = candidate?.strip
  const report: StripReport | undefined = strip?.state === 'done' ? strip : undefined
  const beside = useSessionPart((state) => state.answer?.beside)
  const besideReport = beside?.strip.state === 'done' ? beside.strip : undefined
  const depth = Math.max(depthOf(report), besideReport ? depthOf(besideReport) : 0)
  const form = tall ? TALL : SLIM
  const frame: Frame = useMemo(
    () => ({ ...form, width, from: zoom.from, to: zoom.to, depth }),
    [form, width, zoom, depth],
  )
  const gestures = useScrubGestures(frame, (centre, factor) => {
    onZoom((now) => zoomed(now, centre, factor))
  })
  const size = sized ? <SizeButton tall={tall} onTall={onTall} /> : null
  return (
    <section
      className={`panel strip ${tall ? 'tall' : 'slim'}`}
      aria-label="Valves and piston over the crank"
      ref={holder}
    >
      {tall ? (
        <div className="strip-tools">
          {report ? (
            <Readout report={report} />
          ) : (
            <span className="quiet">Valves and piston over one cycle</span>
          )}
          <span className="grow" />
          <StripTools zoom={zoom} onZoom={onZoom} />
        </div>
      ) : null}
      {report && handles && candidate ? (
        <>
          <div
            className="strip-plot layered"
            style={{ height: form.height }}
            {...gestures}
            onDoubleClick={(event) =>
              onZoom((now) => zoomed(now, degOf(frame, event.nativeEvent.offsetX), 0.5))
            }
          >
            <Curves
              frame={frame}
              report={report}
              beside={besideReport}
              motion={motion}
              bare={!tall}
              atOnce={!sized}
            />
            <svg width={width} height={form.height} aria-hidden="true">
              {tall ? <Tightest frame={frame} report={report} /> : null}
              <Cursor frame={frame} />
            </svg>
          </div>
          <Handles frame={frame} handles={handles} candidate={candidate.id} />
          {tall ? (
            <>
              <div className="trace-head">
                <TraceChoice trace={trace} onTrace={view.trace.set} />
                <span className="grow" />
                {beside ? <BesideNote beside={beside} /> : null}
                <StripExport name={candidate.name} holder={holder} />
                {size}
              </div>
              {of === 'gas' ? (
                <GasStrip frame={frame} report={report} trace={trace} />
              ) : of === 'motion' ? (
                <MotionStrip {...{ frame, report, trace, motion, waiting }} />
              ) : (
                <TraceStrip frame={frame} report={report} trace={trace} />
              )}
            </>
          ) : (
            <div className="slim-words">
              {beside ? <BesideNote beside={beside} /> : null}
              {size}
            </div>
          )}
        </>
      ) : (
        <div className="strip-waiting">
          {strip?.state === 'failed' ? (
            <Needs what="The strip is drawn" reason={strip.reason} needs={strip.needs} />
          ) : (
            'Working out the first picture…'
          )}
        </div>
      )}
    </section>
  )
}

const SizeButton = memo(function SizeButton({
  tall,
  onTall,
}: {
  tall: boolean
  onTall: () => void
}) {
  return (
    <Button
      size="small"
      type="text"
      className="strip-size"
      aria-expanded={tall}
      title="Alt+S"
      onClick={onTall}
    >
      {tall ? 'slim strip' : 'tall strip'}
    </Button>
  )
})

/** A little more than the higher lift, so that the piston's approach is seen to scale; whole millimetres, so that a drag does not stretch the picture. */
function depthOf(report: StripReport | undefined): number {
  if (!report) return 16
  const most = [...report.intake_lift_mm, ...report.exhaust_lift_mm].reduce(
    (a, b) => Math.max(a, b),
    6,
  )
  return Math.ceil(1.1 * most)
}
