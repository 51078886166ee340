import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { OrderCard } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** The order card of the candidate in view. */
export function useOrder() {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  return useQuery<OrderCard>({
    queryKey: ['order', document, candidate],
    queryFn: () =>
      answered(client.POST('/api/order', { body: { document, candidate: candidate ?? '' } })),
    enabled: candidate !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
