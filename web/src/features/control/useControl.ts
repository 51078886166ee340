import { useEffect } from 'react'
import type { ControlLine, DynamicsReport } from '../../api/client'
import { useJob } from '../../model/useJob'
import { useSession, useSessionPart } from '../../model/useSession'

/** Reports that nobody looks at any more are forgotten after this; the server keeps them longer. */
const KEPT_MS = 30_000

export interface ShownControl {
  readonly report: DynamicsReport | undefined
  readonly failed: Extract<ControlLine, { state: 'failed' }> | undefined
  /** What goes on, in a word. */
  readonly doing: string
}

/** The trains of the candidate in view in motion; speeds come first, then the limits, then what buys more. */
export function useControl(thresholdMm: number | undefined): ShownControl {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const request =
    candidate === undefined ? undefined : { document, candidate, threshold_mm: thresholdMm ?? null }
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
    doing: job.error ? job.error.message : doing(line),
  }
}

function doing(line: ControlLine | undefined): string {
  if (line === undefined) return 'turning the cam'
  if (line.state === 'waiting') return 'waiting for other work'
  if (line.state === 'stopped') return 'stopped before its end'
  if (line.state !== 'running') return ''
  const what = line.report.says === '' ? 'speeds and limits' : 'what buys speed'
  return `${what}: ${String(line.done)} of ${String(line.of)}`
}
