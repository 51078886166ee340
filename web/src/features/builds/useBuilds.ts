import { useQuery } from '@tanstack/react-query'
import { answered, client } from '../../api/client'

/** Every stored build, the one saved last first. */
export function useBuilds() {
  return useQuery({ queryKey: ['builds'], queryFn: () => answered(client.GET('/api/builds')) })
}

/** One stored build as it is when it is opened; the session takes over from there. */
export function useOpenedBuild(id: number | undefined) {
  return useQuery({
    queryKey: ['build', id],
    queryFn: () => answered(client.GET('/api/builds/{id}', { params: { path: { id: id ?? 0 } } })),
    enabled: id !== undefined,
    gcTime: 0,
    staleTime: Infinity,
  })
}
