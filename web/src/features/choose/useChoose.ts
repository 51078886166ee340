import { useState } from 'react'
import type { ChooseLine, ChooseReport, HardwareReport } from '../../api/client'
import { useJob, waitsFor } from '../../model/useJob'
import { useLatest } from '../../model/useLatest'
import { useSessionPart } from '../../model/useSession'

/** Reports that nobody looks at any more are forgotten after this; the server keeps them longer. */
const KEPT_MS = 60_000

export type Cloud = Extract<ChooseLine, { state: 'running' }>['cloud']

export interface ShownChoice {
  /** What there is to choose; of the candidate as it was a moment ago, until it is computed anew. */
  readonly report: ChooseReport | undefined
  /** Whether it is of the candidate as it was a moment ago. */
  readonly isOld: boolean
  /** Cams that were screened, as they come; empty once everything is there. */
  readonly cloud: Cloud
  readonly failed: Extract<ChooseLine, { state: 'failed' }> | undefined
  /** What goes on, in words. */
  readonly doing: string
}

const NO_CLOUD: Cloud = []

/**
 * What there is to choose of the candidate in view; the schools come first, drafts make it sharper. Held back while something
 * else has the page's turn: what there is stays in view; it waits for what is done in a moment.
 */
export function useChoose({ isHeld, waits }: { isHeld: boolean; waits: boolean }): ShownChoice {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const request = candidate === undefined ? undefined : { document, candidate }
  const job = useJob<ChooseLine>(
    '/api/choose',
    ['choose', request],
    isHeld || waits ? undefined : request,
    KEPT_MS,
  )
  const line = job.data
  const running = line?.state === 'running' ? line : undefined
  const own = line?.state === 'done' ? line.report : (running?.report ?? undefined)
  const report = useLatest(own, candidate)
  return {
    report,
    isOld: report !== own,
    cloud: running?.cloud ?? NO_CLOUD,
    failed: line?.state === 'failed' ? line : undefined,
    doing: isHeld ? '' : job.error ? job.error.message : doing(line),
  }
}

/** Decisions beside the cam, once the cam's own are there; none until they are asked for. */
export function useHardware(isWanted: boolean): readonly HardwareReport[] {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const request = candidate === undefined ? undefined : { document, candidate, hardware: true }
  const { data } = useJob<ChooseLine>(
    '/api/choose',
    ['choose', request],
    isWanted ? request : undefined,
    KEPT_MS,
  )
  const own =
    data?.state === 'done' ? data.report : data?.state === 'running' ? data.report : undefined
  return useMerged(own?.hardware ?? NOTHING, candidate)
}

const NOTHING: readonly HardwareReport[] = []

/** What was looked at of a candidate so far, as new as it is. */
function useMerged(
  own: readonly HardwareReport[],
  candidate: string | undefined,
): readonly HardwareReport[] {
  const [kept, setKept] = useState({ all: own, own, candidate })
  if (own !== kept.own || candidate !== kept.candidate) {
    const last = candidate === kept.candidate ? kept.all : NOTHING
    setKept({ all: merged(last, own), own, candidate })
  }
  return kept.all
}

/** What is new in the place of what was; what has not come yet stays as it was, so that nothing jumps under the hand. Pure. */
export function merged(
  last: readonly HardwareReport[],
  own: readonly HardwareReport[],
): readonly HardwareReport[] {
  const isOf = (one: HardwareReport) => (other: HardwareReport) =>
    other.decision.decision === one.decision.decision
  const more = own.filter((each) => !last.some(isOf(each)))
  return [...last.map((each) => own.find(isOf(each)) ?? each), ...more]
}

function doing(line: ChooseLine | undefined): string {
  if (line?.state !== 'running') return waitsFor(line, 'beginning') ?? ''
  return line.done === 0 ? line.doing : `${line.doing}: ${String(line.done)} of ${String(line.of)}`
}
