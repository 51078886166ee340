import { useEffect } from 'react'
import type { ToleranceLine, ToleranceReport } from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useLatest } from '../../model/useLatest'
import { useSession, useSessionPart } from '../../model/useSession'

export interface ShownTolerances {
  /** What was drawn; of the document as it was a moment ago, until it is drawn anew. */
  readonly report: ToleranceReport | undefined
  /** Whether it is of the document as it was a moment ago. */
  readonly isOld: boolean
  /** What goes on, in words; empty when nothing does. */
  readonly doing: string
  readonly error: string | undefined
}

/** Limits of the candidate in view under its tolerances. */
export function useTolerances(): ShownTolerances {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const session = useSession()
  const request = candidate === undefined ? undefined : { document, candidate }
  const job = useJob<ToleranceLine>('/api/tolerance', ['tolerance', request], request, 60_000)
  const line = job.data
  const own = line?.state === 'running' || line?.state === 'done' ? line.report : undefined
  const report = useLatest(own, candidate)
  const isDone = line?.state === 'done'
  useEffect(() => {
    // The margins take up the chances: the server keeps what was drawn by what it was drawn from.
    if (isDone) session.settle()
  }, [isDone, document, session])
  return {
    report,
    isOld: report !== own,
    doing: job.isError ? '' : doing(line),
    error: line?.state === 'failed' ? line.reason : job.error?.message,
  }
}

function doing(line: ToleranceLine | undefined): string {
  if (line?.state === 'running') return line.doing
  return waitsFor(line, 'running every field off by itself') ?? ''
}
