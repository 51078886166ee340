import { useQueries } from '@tanstack/react-query'
import type { CurveLine, CurveRequest } from '../../api/client'
import { jobQuery } from '../../model/useJob'
import { useSessionPart } from '../../model/useSession'

/** A drafted curve of each of some candidates of the document in view, as they come, in the order of the candidates. */
export function useDrafts(candidates: readonly string[]) {
  const document = useSessionPart((state) => state.history.present)
  return useQueries({
    queries: candidates.map((candidate) => {
      const request: CurveRequest = { document, candidate, effort: 'draft', level: null }
      return jobQuery<CurveLine>('/api/curve', ['curve', request], request, () => undefined)
    }),
  })
}
