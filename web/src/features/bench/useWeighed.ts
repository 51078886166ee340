import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Edit, Weighed } from '../../api/client'
import { answered, client } from '../../api/client'
import { useCandidate, useSessionPart } from '../../model/useSession'

/** What edits of the document as it stands would move. */
export function useWeighed(edits: Edit[]) {
  const document = useSessionPart((state) => state.history.present)
  const system = useSessionPart((state) => state.system)
  const candidate = useCandidate()?.id ?? null
  return useQuery<Weighed>({
    queryKey: ['weigh', document, candidate, edits],
    queryFn: ({ signal }) =>
      answered(client.POST('/api/weigh', { body: { document, candidate, edits, system }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  })
}
