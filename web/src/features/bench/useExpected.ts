import { useQuery } from '@tanstack/react-query'
import type { ExpectedReport, SessionReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** What was read in a session against what the document expects, with what both may be off by. */
export function useExpected(shown: SessionReport): ExpectedReport | undefined {
  const document = useSessionPart((state) => state.answer?.document)
  const isCompared = shown.figures.some(({ expected, doubt }) => expected && doubt)
  const { data } = useQuery({
    queryKey: ['expected', shown.id, document],
    queryFn: () =>
      answered(
        client.POST('/api/bench-expected', {
          body: { document: document ?? '', session: shown.id },
        }),
      ),
    enabled: isCompared && document !== undefined && document !== '',
    retry: false,
    staleTime: Infinity,
    gcTime: 60_000,
    // What it was a moment ago stands until what it is now has come.
    placeholderData: (before) => before,
  })
  return isCompared ? data : undefined
}
