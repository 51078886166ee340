import type { PhasingLine, PhasingReport } from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useLatest } from '../../model/useLatest'
import { useSessionPart } from '../../model/useSession'

export interface ShownPhasing {
  /** The window; of the document as it was a moment ago, until it is computed anew. */
  readonly report: PhasingReport | undefined
  readonly isOld: boolean
  /** What goes on, in words; empty when nothing does. */
  readonly doing: string
  readonly failed: Extract<PhasingLine, { state: 'failed' }> | undefined
  readonly error: string | undefined
}

/** The phasing window of the candidate in view; gaps come at once, torque follows. */
export function usePhasing(): ShownPhasing {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const request = candidate === undefined ? undefined : { document, candidate }
  const job = useJob<PhasingLine>('/api/phasing', ['phasing', request], request, 60_000)
  const line = job.data
  const own = line?.state === 'running' || line?.state === 'done' ? line.report : undefined
  const report = useLatest(own, candidate)
  return {
    report,
    isOld: report !== own,
    doing: job.isError ? '' : doing(line),
    failed: line?.state === 'failed' ? line : undefined,
    error: job.error?.message,
  }
}

function doing(line: PhasingLine | undefined): string {
  if (line?.state !== 'running') return waitsFor(line, 'turning the cam') ?? ''
  return `drafting torque: ${String(line.done)} of ${String(line.of)}`
}
