import { useCallback, useMemo } from 'react'
import type { StripReport, TraceReport } from '../../api/client'
import { Canvas } from './Canvas'
import { Cursor } from './Cursor'
import type { Frame } from './geometry'
import type { Ink } from './paint'
import { paintTrace } from './paint'
import type { TraceName } from './traces'
import { rangeOf, traceOf } from './traces'

const HEIGHT = 60

interface Props {
  readonly frame: Frame
  readonly report: StripReport
  readonly trace: TraceName
  readonly gas?: TraceReport | undefined
}

/** One chosen trace of both valves under the strip, on the same axis. */
export function TraceStrip({ frame: above, report, trace, gas }: Props) {
  const frame: Frame = useMemo(() => ({ ...above, height: HEIGHT, top: 4, bottom: 4 }), [above])
  const chosen = traceOf(trace)
  const paint = useCallback(
    (pen: CanvasRenderingContext2D, ink: Ink) => {
      const curves = chosen.curves(report, gas)
      paintTrace(pen, frame, ink, curves, rangeOf(curves, chosen.most))
    },
    [frame, report, chosen, gas],
  )
  return (
    <div className="layered" style={{ height: HEIGHT }}>
      <Canvas width={frame.width} height={HEIGHT} label={chosen.label} paint={paint} />
      <svg width={frame.width} height={HEIGHT} aria-hidden="true">
        <Cursor frame={frame} label={false} />
      </svg>
    </div>
  )
}
