import type { UseQueryResult } from '@tanstack/react-query'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { JobPath } from './stream'
import { readLines } from './stream'

/** Work of the server that takes seconds: its lines as they come, under `key`. No request asks for nothing. */
export function useJob<Line>(path: JobPath, key: readonly unknown[], request: object | undefined, gcTime?: number): UseQueryResult<Line> {
  const client = useQueryClient()
  return useQuery({
    queryKey: key,
    enabled: request !== undefined,
    staleTime: Infinity,
    retry: false,
    ...(gcTime === undefined ? {} : { gcTime }),
    queryFn: ({ signal }): Promise<Line> => {
      if (!request) return Promise.reject(new Error('no request'))
      return readLines<Line>(path, request, signal, (line) => { client.setQueryData(key, line) })
    },
  })
}
