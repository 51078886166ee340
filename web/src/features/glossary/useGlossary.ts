import { useQuery } from '@tanstack/react-query'
import { answered, client } from '../../api/client'

/** The trade's words from the server's one table. */
export function useGlossary() {
  return useQuery({
    queryKey: ['glossary'],
    queryFn: () => answered(client.GET('/api/glossary')),
    staleTime: Infinity,
  })
}
