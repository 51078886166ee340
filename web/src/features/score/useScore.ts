import { useState } from 'react'
import type { ScoreLine, ScoreReport } from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useSessionPart } from '../../model/useSession'

export interface ShownScore {
  /** The board, of the candidates that are there. */
  readonly report: ScoreReport | undefined
  /** What goes on, in words; empty when nothing does. */
  readonly doing: string
  readonly error: string | undefined
  /** Whether nobody has asked for it yet. */
  readonly isAsked: boolean
  readonly ask: () => void
}

/** The score board of the document in view, from when it was asked for on. */
export function useScore(): ShownScore {
  const document = useSessionPart((state) => state.history.present)
  const [isAsked, setAsked] = useState(false)
  const request = isAsked ? { document } : undefined
  const job = useJob<ScoreLine>('/api/score', ['score', request], request)
  const line = job.data
  const isThere = line?.state === 'running' || line?.state === 'done'
  return {
    report: isThere ? line.report : undefined,
    doing: isAsked && !job.isError ? doing(line) : '',
    error: line?.state === 'failed' ? line.reason : job.error?.message,
    isAsked,
    ask: () => {
      setAsked(true)
    },
  }
}

function doing(line: ScoreLine | undefined): string {
  if (line?.state !== 'running')
    return waitsFor(line, 'computing the first candidate in full') ?? ''
  return `computed in full: ${String(line.done)} of ${String(line.of)}`
}
