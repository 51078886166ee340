import { useIsFetching } from '@tanstack/react-query'
import type { CurveReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { useCurve } from '../torque/useCurve'

/** Whether a curve is being computed, for which everything that takes longer makes room. */
export function useCurveFirst(): boolean {
  return useIsFetching({ queryKey: ['curve'] }) > 0
}

/** The drafted curve of the candidate in view while nothing is dragged: what takes over from the curves around it. */
export function useAtRest(): CurveReport | undefined {
  const dragged = useSessionPart((state) => state.dragged)
  const kept = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const isAtRest = !dragged && candidate !== undefined
  const request = {
    document: kept,
    candidate: candidate ?? null,
    effort: 'draft' as const,
    level: null,
  }
  const { data } = useCurve(isAtRest ? request : undefined)
  return isAtRest && data?.state === 'done' ? data.curve : undefined
}
