import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Instrument } from '../../api/client'
import { answered, client } from '../../api/client'

const KEY = ['instruments']

/** The shop's instruments, and the ways to set one up and to forget it. */
export function useInstruments() {
  const cache = useQueryClient()
  const { data } = useQuery<Instrument[]>({
    queryKey: KEY,
    queryFn: () => answered(client.GET('/api/instruments')),
    staleTime: 60_000,
    retry: false,
  })
  const kept = (all: Instrument[]) => cache.setQueryData(KEY, all)
  const put = useMutation({
    mutationFn: (body: Instrument) => answered(client.PUT('/api/instruments', { body })),
    onSuccess: kept,
  })
  const remove = useMutation({
    mutationFn: (name: string) =>
      answered(client.DELETE('/api/instruments/{name}', { params: { path: { name } } })),
    onSuccess: kept,
  })
  return { all: data ?? [], put, remove }
}
