import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import type { Mapped, PullFileAnswer } from '../../api/client'
import { answered, client, done } from '../../api/client'
import { mappedOf } from './pulls'

/** A dyno's file as it would be taken over, how its columns are mapped anew, and how that is remembered. */
export function usePullFile(text: string) {
  const [mapped, setMapped] = useState<readonly Mapped[]>()
  const query = useQuery<PullFileAnswer>({
    queryKey: ['pull-file', text, mapped],
    queryFn: () =>
      answered(
        client.POST('/api/pull-file', { body: { text, mapped: mapped ? [...mapped] : null } }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
  const file = query.data?.file
  return {
    answer: query.data,
    error: query.error,
    map: (next: Mapped[]) => setMapped(next),
    /** What is not remembered is mapped again next time; nothing else is lost by it. */
    remember: () => {
      if (!file) return
      const body = { signature: file.signature, mapped: mappedOf(file.columns) }
      void done(client.PUT('/api/pull-mappings', { body })).catch(() => undefined)
    },
  }
}
