import { useEffect, useState } from 'react'
import type { ControlLine, DynamicsReport } from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useSession, useSessionPart } from '../../model/useSession'

/** Reports that nobody looks at any more are forgotten after this; the server keeps them longer. */
const KEPT_MS = 30_000

export interface ShownControl {
  readonly report: DynamicsReport | undefined
  readonly failed: Extract<ControlLine, { state: 'failed' }> | undefined
  /** Where control is lost with what is dragged, while it is dragged: in a sentence. */
  readonly dragged: string | undefined
  /** What goes on, in a word. */
  readonly doing: string
}

/** The trains of the candidate in view in motion; speeds come first, then the limits, then what buys more. */
export function useControl(thresholdMm: number | undefined, wanted = true): ShownControl {
  const document = useSessionPart((state) => state.history.present)
  const shown = useSessionPart((state) => state.answer?.document)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const of = (text: string | undefined, preview: boolean) =>
    candidate === undefined || text === undefined || !wanted
      ? undefined
      : { document: text, candidate, threshold_mm: thresholdMm ?? null, preview }
  const request = of(document, false)
  // A drag asks faster than limits come: the next document is taken up when the one before it is answered.
  const next = shown !== undefined && shown !== document ? shown : undefined
  const [asked, setAsked] = useState<string>()
  const drag = of(asked, true)
  const preview = useJob<ControlLine>('/api/control', ['control', drag], drag, KEPT_MS)
  if (asked !== next && (next === undefined || !preview.isFetching)) setAsked(next)
  const job = useJob<ControlLine>('/api/control', ['control', request], request, KEPT_MS)
  const line = job.data
  const done = line?.state === 'done' && thresholdMm === undefined
  // The limits take up what was computed: the server knows the trains by what they are turned with.
  const session = useSession()
  useEffect(() => {
    if (done) session.settle()
  }, [done, line, session])
  return {
    report: line?.state === 'done' || line?.state === 'running' ? line.report : undefined,
    failed: line?.state === 'failed' ? line : undefined,
    dragged:
      next !== undefined && preview.data?.state === 'done' ? preview.data.report.says : undefined,
    doing: job.error ? job.error.message : doing(line),
  }
}

function doing(line: ControlLine | undefined): string {
  if (line?.state !== 'running') return waitsFor(line, 'turning the cam') ?? ''
  const isLimited = Array.isArray(line.report.exhaust.limiting_speed_band_rpm)
  const what = isLimited ? 'what buys speed' : 'speeds and limits'
  return `${what}: ${String(line.done)} of ${String(line.of)}`
}
