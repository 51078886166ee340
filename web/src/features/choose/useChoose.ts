import type { ChooseLine, ChooseReport } from '../../api/client'
import { useJob } from '../../model/useJob'
import { useSessionPart } from '../../model/useSession'

/** Reports that nobody looks at any more are forgotten after this; the server keeps them longer. */
const KEPT_MS = 60_000

export type Cloud = Extract<ChooseLine, { state: 'running' }>['cloud']

export interface ShownChoice {
  readonly report: ChooseReport | undefined
  /** Cams that were screened, as they come; empty once everything is there. */
  readonly cloud: Cloud
  readonly failed: Extract<ChooseLine, { state: 'failed' }> | undefined
  /** What goes on, in words. */
  readonly doing: string
}

const NO_CLOUD: Cloud = []

/**
 * What there is to choose of the candidate in view; the schools come first, drafts make it sharper. Held back while something
 * else has the page's turn: what there is stays in view.
 */
export function useChoose(isHeld: boolean): ShownChoice {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const request = candidate === undefined ? undefined : { document, candidate }
  const job = useJob<ChooseLine>(
    '/api/choose',
    ['choose', request],
    isHeld ? undefined : request,
    KEPT_MS,
  )
  const line = job.data
  const running = line?.state === 'running' ? line : undefined
  return {
    report: line?.state === 'done' ? line.report : (running?.report ?? undefined),
    cloud: running?.cloud ?? NO_CLOUD,
    failed: line?.state === 'failed' ? line : undefined,
    doing: isHeld ? '' : job.error ? job.error.message : doing(line),
  }
}

function doing(line: ChooseLine | undefined): string {
  if (line === undefined) return 'beginning'
  if (line.state === 'waiting') return 'waiting for other work'
  if (line.state === 'stopped') return 'stopped before its end'
  if (line.state !== 'running') return ''
  return line.done === 0 ? line.doing : `${line.doing}: ${String(line.done)} of ${String(line.of)}`
}
