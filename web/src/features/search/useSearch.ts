import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type {
  BesideSetup,
  Goal,
  SearchLine,
  SearchPoint,
  SearchReport,
  Start,
} from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useSessionPart } from '../../model/useSession'

export interface Wanted {
  readonly start: Start
  readonly goals: readonly Goal[]
  /** Candidates to hold what is found against. */
  readonly beside: readonly BesideSetup[]
  /** Share of engines that may fail a limit when they are built; nobody asks where it is none. */
  readonly most_fails: number | null
}

export interface ShownSearch {
  readonly report: SearchReport | undefined
  /** Candidates as they come; empty once everything is there. */
  readonly points: readonly SearchPoint[]
  /** What goes on, in words; empty when nothing does. */
  readonly doing: string
  /** Why nothing came. */
  readonly error: string | undefined
  readonly failed: Extract<SearchLine, { state: 'failed' }> | undefined
  /** Whether it was made of another document than the one in view. */
  readonly isOld: boolean
  readonly begin: (wanted: Wanted) => void
  readonly stop: () => void
}

/** What was asked: the document and the candidate as they were, and what is wanted. */
interface Asked {
  readonly document: string
  readonly candidate: string | undefined
  readonly setup: Wanted & { readonly evaluations: number }
}

const NONE: readonly SearchPoint[] = []

/** A search of the candidate in view: begun and stopped by hand, and kept while the document changes. */
export function useSearch(): ShownSearch {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const [request, setRequest] = useState<Asked>()
  const client = useQueryClient()
  const key = ['search', request]
  const job = useJob<SearchLine>('/api/search', key, request)
  const line = request ? job.data : undefined
  const running = line?.state === 'running' ? line : undefined
  return {
    report: line?.state === 'done' ? line.report : undefined,
    points: running?.points ?? NONE,
    failed: line?.state === 'failed' ? line : undefined,
    doing: job.isError ? '' : request ? doing(line) : '',
    error: job.error?.message,
    isOld:
      request !== undefined && (request.document !== document || request.candidate !== candidate),
    begin: (wanted) => {
      // The page has one turn: what is drafted beside makes room, and goes on afterwards where it was.
      void client.cancelQueries({ queryKey: ['choose'] }, { revert: false })
      setRequest({ document, candidate, setup: { ...wanted, evaluations: inFull(wanted.start) } })
    },
    stop: () => {
      void client.cancelQueries({ queryKey: key }, { revert: false })
      setRequest(undefined)
    },
  }
}

/** Candidates computed in full: where little is open, a few are all there is. Pure. */
function inFull(start: Start): number {
  return start === 'new_cam' ? 20 : 8
}

function doing(line: SearchLine | undefined): string {
  if (line?.state !== 'running') return waitsFor(line, 'beginning') ?? ''
  return line.of === 0 ? line.doing : `${line.doing}: ${String(line.done)} of ${String(line.of)}`
}
