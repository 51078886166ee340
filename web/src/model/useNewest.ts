import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { answered, client, Refusal } from '../api/client'
import { ME, useMe } from './useMe'
import { isUnsaved } from './state'
import { useSession, useSessionPart } from './useSession'

/** How often somebody else's save is looked for, ms. */
const OFTEN = 3_000

/**
 * Where other devices save too, this tab follows what they saved as long as it has nothing of its own that is not. With edits of its
 * own it stays, and saving them leads to the merge.
 */
export function useNewest(): void {
  const session = useSession()
  const { me } = useMe()
  const id = useSessionPart((state) => state.summary.id)
  const revision = useSessionPart((state) => state.summary.revision)
  const unsaved = useSessionPart(isUnsaved)
  const queries = useQueryClient()
  const { data, error } = useQuery({
    queryKey: ['newest', id],
    queryFn: () => answered(client.GET('/api/builds/{id}', { params: { path: { id } } })),
    enabled: me?.lan === true && !unsaved,
    refetchInterval: OFTEN,
    retry: false,
    gcTime: 0,
  })
  useEffect(() => {
    if (data && data.summary.id === id && data.summary.revision > revision && !unsaved)
      session.adopt(data.summary, data.document).catch(() => {
        // No answer: it is looked for again.
      })
  }, [data, id, revision, unsaved, session])
  const isOut = error instanceof Refusal && error.problem.status === 401
  useEffect(() => {
    // Shut out: who this is, is asked anew.
    if (isOut) void queries.invalidateQueries({ queryKey: ME })
  }, [isOut, queries])
}
