import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { ShopReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** What the shop's pulls say of the model's constants, to the document in view. */
export function useShop() {
  const document = useSessionPart((state) => state.history.present)
  const build = useSessionPart((state) => state.summary.id)
  return useQuery<ShopReport>({
    queryKey: ['shop', document, build],
    queryFn: () => answered(client.POST('/api/shop', { body: { document, build } })),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
