import type { UseQueryResult } from '@tanstack/react-query'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import type { JobLine, JobPath } from './stream'
import { isUnderWay, readLines } from './stream'

/** How the lines of a job are asked for and kept, under `key`; each line on the way goes to `onLine`. No request asks for nothing. */
export function jobQuery<Line extends JobLine>(
  path: JobPath,
  key: readonly unknown[],
  request: object | undefined,
  onLine: (line: Line) => void,
) {
  return {
    queryKey: key,
    enabled: request !== undefined,
    staleTime: Infinity,
    retry: false,
    queryFn: ({ signal }: { signal: AbortSignal }): Promise<Line> =>
      request
        ? readLines<Line>(path, request, signal, onLine)
        : Promise.reject(new Error('no request')),
  }
}

/** Why nothing comes yet, in words; absent while work goes on or is at its end. Pure. */
export function waitsFor(line: JobLine | undefined, beginning: string): string | undefined {
  if (line === undefined) return beginning
  if (line.state === 'waiting') return 'waiting for other work'
  if (line.state === 'stopped') return 'stopped before its end'
  return undefined
}

/** Work of the server that takes seconds: its lines as they come. */
export function useJob<Line extends JobLine>(
  path: JobPath,
  key: readonly unknown[],
  request: object | undefined,
  gcTime?: number,
): UseQueryResult<Line> {
  const client = useQueryClient()
  const job = useQuery({
    ...jobQuery<Line>(path, key, request, (line) => {
      client.setQueryData(key, line)
    }),
    ...(gcTime === undefined ? {} : { gcTime }),
  })
  const { data, fetchStatus, isError, refetch } = job
  // A view that left stopped its work, and its last line stayed behind: whoever looks on asks for it anew.
  const isHalfDone = data === undefined || isUnderWay(data)
  const isLeftAlone = request !== undefined && isHalfDone && !isError && fetchStatus === 'idle'
  useEffect(() => {
    if (isLeftAlone) void refetch()
  }, [isLeftAlone, refetch])
  return job
}
