import { useIsFetching } from '@tanstack/react-query'
import type { CurveReport, Effort } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { useCurve } from '../torque/useCurve'

/** Whether a curve is being computed, for which everything that takes longer makes room. */
export function useCurveFirst(): boolean {
  return useIsFetching({ queryKey: ['curve'] }) > 0
}

/**
 * The drafted curve of the candidate in view while nothing is dragged: what takes over from the curves around it. Where the build
 * does not say how its cylinders are joined, that of one.
 */
export function useAtRest(): CurveReport | undefined {
  const dragged = useSessionPart((state) => state.dragged)
  const kept = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const isAtRest = !dragged && candidate !== undefined
  const of = (effort: Effort) => ({
    document: kept,
    candidate: candidate ?? null,
    effort,
    level: null,
  })
  const draft = useCurve(isAtRest ? of('draft') : undefined).data
  const single = useCurve(isAtRest && draft?.state === 'failed' ? of('fast') : undefined).data
  const line = draft?.state === 'failed' ? single : draft
  return isAtRest && line?.state === 'done' ? line.curve : undefined
}
