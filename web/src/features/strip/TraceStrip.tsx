import { useMemo } from 'react'
import type { StripReport } from '../../api/client'
import { Cursor } from './Cursor'
import type { Frame } from './geometry'
import { xOf } from './geometry'
import type { TraceName } from './traces'
import { TRACES } from './traces'

const HEIGHT = 74

/** One chosen trace of both valves under the strip, on the same axis. */
export function TraceStrip({ frame: above, report, trace }: { frame: Frame; report: StripReport; trace: TraceName }) {
  const frame: Frame = { ...above, height: HEIGHT, top: 4, bottom: 4 }
  const drawn = useMemo(() => draw(above, report, trace), [above, report, trace])
  return (
    <svg className="trace" width={frame.width} height={HEIGHT} role="img" aria-label={drawn.label}>
      <line className="trace-zero" x1={frame.left} x2={frame.width - frame.right} y1={drawn.zero} y2={drawn.zero} />
      {drawn.exhaust ? <path className="exhaust-line" d={drawn.exhaust} /> : null}
      {drawn.intake ? <path className="intake-line" d={drawn.intake} /> : null}
      <Cursor frame={frame} label={false} />
    </svg>
  )
}

function draw(frame: Frame, report: StripReport, name: TraceName) {
  const trace = TRACES.find((t) => t.name === name) ?? TRACES[0]
  const [intake, exhaust] = trace?.curves(report) ?? [undefined, undefined]
  const all = [...(intake ?? []), ...(exhaust ?? [])]
  const most = trace?.most ?? Math.max(1e-9, ...all.map(Math.abs))
  const least = Math.min(0, ...all)
  const y = (value: number) => HEIGHT - 6 - ((Math.min(value, most) - least) / (most - least)) * (HEIGHT - 12)
  const path = (curve: readonly number[] | null | undefined) => {
    if (!curve) return undefined
    const step = frame.to - frame.from > 400 ? 2 : 1
    let drawn = ''
    for (let deg = Math.ceil(frame.from); deg <= Math.min(frame.to, curve.length - 1); deg += step) {
      drawn += `${drawn === '' ? 'M' : 'L'}${Math.round(xOf(frame, deg))},${Math.round(y(curve[deg] ?? 0) * 10) / 10}`
    }
    return drawn === '' ? undefined : drawn
  }
  return { label: trace?.label ?? '', zero: y(0), intake: path(intake), exhaust: path(exhaust) }
}
