import { useQueries } from '@tanstack/react-query'
import type { CurveLine, CurveReport, CurveRequest } from '../../api/client'
import { useSessionPart } from '../session/useSession'
import { readLines } from './stream'
import type { OtherCurve } from './TorqueChart'
import { curveOf } from './useCurve'

interface Wanted {
  readonly name: string
  readonly request: CurveRequest
}

/** Drafts of the other candidates, as they come. */
export function useOthers(wanted: boolean, level: string | undefined): OtherCurve[] {
  const document = useSessionPart((state) => state.history.present)
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const index = useSessionPart((state) => state.answer?.candidate_index)
  const asked = wanted ? (candidates ?? []).filter((_, place) => place !== index) : []
  return useDrafts(asked.map(({ id, name }) => ({ name, request: { document, candidate: id, effort: 'draft', level: level ?? null } })))
}

/** Drafts of the candidate in view on the boost levels it is not shown on. */
export function useOtherLevels(wanted: boolean, curve: CurveReport | undefined): OtherCurve[] {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const names = wanted && candidate !== undefined ? (curve?.level_names ?? []).filter((name) => name !== curve?.level) : []
  return useDrafts(names.map((name) => ({ name, request: { document, candidate: candidate ?? null, effort: 'draft', level: name } })))
}

function useDrafts(wanted: readonly Wanted[]): OtherCurve[] {
  const found = useQueries({
    queries: wanted.map(({ request }) => ({
      queryKey: ['curve', request],
      staleTime: Infinity,
      retry: false,
      queryFn: ({ signal }: { signal: AbortSignal }): Promise<CurveLine> => readLines<CurveLine>('/api/curve', request, signal, () => undefined),
    })),
  })
  return wanted.flatMap(({ name }, place) => {
    const curve: CurveReport | undefined = curveOf(found[place]?.data)
    return curve ? [{ name, curve }] : []
  })
}
