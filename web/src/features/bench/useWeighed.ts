import type { Edit, Weighed, WeighLine } from '../../api/client'
import { useJob } from '../../model/useJob'
import { useLatest } from '../../model/useLatest'
import { useCandidate, useSessionPart } from '../../model/useSession'

export interface ShownWeighed {
  /** Margins at once, torque as soon as it is drafted; of the edits before, until these are weighed. */
  readonly weighed: Weighed | undefined
  /** Whether torque is still to come. */
  readonly isDrafting: boolean
  readonly isError: boolean
}

/** What edits of the document as it stands would move; nobody goes on when the page has left. */
export function useWeighed(edits: Edit[]): ShownWeighed {
  const document = useSessionPart((state) => state.history.present)
  const system = useSessionPart((state) => state.system)
  const candidate = useCandidate()?.id
  const request = candidate === undefined ? undefined : { document, candidate, edits, system }
  const job = useJob<WeighLine>('/api/weigh', ['weigh', request], request, 60_000)
  const line = job.data
  const own = line?.state === 'running' || line?.state === 'done' ? line.weighed : undefined
  return {
    weighed: useLatest(own, candidate),
    isDrafting: line?.state !== 'done',
    isError: job.isError || line?.state === 'failed',
  }
}
