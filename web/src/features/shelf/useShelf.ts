import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { FitReport, LobeOutline, Part, PartKind, ShelfPart, SideWord } from '../../api/client'
import { answered, client, done, Refusal } from '../../api/client'
import type { SessionState } from '../../model/state'
import { useSession, useSessionPart } from '../../model/useSession'

/** The key of the shelf's parts. */
export const SHELF = ['shelf'] as const

/** The candidate in view; one is in view before any was chosen. */
function candidateOf({ answer }: SessionState): string | undefined {
  return answer?.candidates[answer.candidate_index]?.id
}

/** Every part of the shelf. */
export function useParts() {
  return useQuery<ShelfPart[], Refusal>({
    queryKey: SHELF,
    queryFn: () => answered(client.GET('/api/parts')),
  })
}

/** How cams and lobes of the shelf look, by name; nothing for other kinds. */
export function useDrawnLobes(kind: PartKind): ReadonlyMap<string, readonly LobeOutline[]> {
  const drawn = useQuery({
    queryKey: [...SHELF, 'lobes'],
    queryFn: () => answered(client.GET('/api/parts/lobes')),
    enabled: kind === 'cam' || kind === 'lobe',
  })
  return new Map(
    (drawn.data ?? [])
      .filter((part) => part.kind === kind)
      .map(({ name, lobes }) => [name, lobes] as const),
  )
}

/** A part tried in the candidate in view; nothing is changed. */
export function useFit(part: Part, side: SideWord | undefined) {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart(candidateOf) ?? ''
  const system = useSessionPart((state) => state.system)
  return useQuery<FitReport, Refusal>({
    queryKey: ['fit', document, candidate, part, side, system],
    queryFn: () =>
      answered(
        client.POST('/api/parts/fit', {
          body: { document, candidate, part, side: side ?? null, system },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** What changes the shelf; what went wrong, field by field. */
export function useShelfWork() {
  const queries = useQueryClient()
  const session = useSession()
  const [refusal, setRefusal] = useState<Refusal>()
  const work = async <T>(action: () => Promise<T>): Promise<T | undefined> => {
    try {
      const result = await action()
      setRefusal(undefined)
      await queries.invalidateQueries({ queryKey: SHELF })
      return result
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      setRefusal(error)
      return undefined
    }
  }
  return {
    refusal,
    take: (text: string) =>
      work(() =>
        answered(
          client.POST('/api/parts/sheet', { body: { text, system: session.read().system } }),
        ),
      ),
    remove: (part: Part) =>
      work(() =>
        done(
          client.DELETE('/api/parts', { params: { query: { kind: part.kind, name: part.name } } }),
        ),
      ),
    keep: (kind: PartKind, side: SideWord, name: string) => {
      const state = session.read()
      const candidate = candidateOf(state) ?? ''
      return work(() =>
        answered(
          client.POST('/api/parts/keep', {
            body: { document: state.history.present, candidate, kind, side, name },
          }),
        ),
      )
    },
  }
}
