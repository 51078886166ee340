import { useMemo } from 'react'
import type { StripReport, TraceReport } from '../../api/client'
import { Cursor } from './Cursor'
import type { Frame } from './geometry'
import { Layer } from './Layer'
import type { Picture } from './picture'
import type { TraceName } from './traces'
import type { RealMotion } from './useRealMotion'
import { rangeOf, traceOf } from './traces'

const HEIGHT = 60

interface Props {
  readonly frame: Frame
  readonly report: StripReport
  readonly trace: TraceName
  readonly gas?: TraceReport | undefined
  readonly motion?: RealMotion | undefined
}

/** One chosen trace of both valves under the strip, on the same axis. */
export function TraceStrip({ frame: above, report, trace, gas, motion }: Props) {
  const frame: Frame = useMemo(() => ({ ...above, height: HEIGHT, top: 4, bottom: 4 }), [above])
  const chosen = traceOf(trace)
  const picture: Picture = useMemo(() => {
    const curves = chosen.curves(report, gas, motion)
    return { kind: 'trace', frame, curves, range: rangeOf(curves, chosen.most) }
  }, [frame, report, chosen, gas, motion])
  return (
    <div className="layered" style={{ height: HEIGHT }}>
      <Layer picture={picture} label={chosen.label} />
      <svg width={frame.width} height={HEIGHT} aria-hidden="true">
        <Cursor frame={frame} label={false} />
      </svg>
    </div>
  )
}
