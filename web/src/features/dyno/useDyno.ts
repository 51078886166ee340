import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { DynoReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import type { AirWord } from './airs'

/** What the pulls of the document in view come to in an air, and the test it plans. */
export function useDyno(air: AirWord) {
  const document = useSessionPart((state) => state.history.present)
  return useQuery<DynoReport>({
    queryKey: ['dyno', document, air],
    queryFn: () => answered(client.POST('/api/dyno', { body: { document, air } })),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
