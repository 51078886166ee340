import type { CandidateReport, TrainReport } from '../../api/client'
import { useCandidate } from '../../model/useSession'

export type SideName = 'intake' | 'exhaust'

export const SIDES: readonly SideName[] = ['intake', 'exhaust']

/** The way from lobe to valve of the candidate in view, where it is computed; why not, where it is not. */
export function useTrain(): {
  readonly train: Readonly<Record<SideName, TrainReport>> | undefined
  readonly failed: Extract<CandidateReport['train'], { state: 'failed' }> | undefined
} {
  const block = useCandidate()?.train
  return {
    train: block?.state === 'done' ? block : undefined,
    failed: block?.state === 'failed' ? block : undefined,
  }
}
