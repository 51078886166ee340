import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { ServiceReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { today } from '../bench/lines'

/** What the service log of the document in view comes to, as of today. */
export function useService() {
  const document = useSessionPart((state) => state.history.present)
  const build = useSessionPart((state) => state.summary.id)
  const day = today(new Date())
  return useQuery<ServiceReport>({
    queryKey: ['service', document, build, day],
    queryFn: () => answered(client.POST('/api/service', { body: { document, build, today: day } })),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
