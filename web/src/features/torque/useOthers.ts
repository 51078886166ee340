import { useQueries } from '@tanstack/react-query'
import type { CurveLine, CurveReport, CurveRequest } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import type { OtherCurve } from './chart'
import { curveOf } from './useCurve'
import { jobQuery } from '../../model/useJob'

interface Wanted {
  readonly name: string
  readonly request: CurveRequest
}

/** Curves beside the one in view, and what is to be said of those that are less or none. */
interface Others {
  readonly curves: readonly OtherCurve[]
  readonly notes: readonly string[]
}

/** Drafts of the other candidates, as they come; by one cylinder alone where the build gives no more. */
export function useOthers(wanted: boolean, level: string | undefined): Others {
  const document = useSessionPart((state) => state.history.present)
  const candidates = useSessionPart((state) => state.answer?.candidates)
  const index = useSessionPart((state) => state.answer?.candidate_index)
  const asked = wanted ? (candidates ?? []).filter((_, place) => place !== index) : []
  return useDrafts(
    asked.map(({ id, name }) => ({
      name,
      request: { document, candidate: id, effort: 'draft', level: level ?? null },
    })),
  )
}

/** Drafts of the candidate in view on the boost levels it is not shown on. */
export function useOtherLevels(wanted: boolean, curve: CurveReport | undefined): Others {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const names =
    wanted && candidate !== undefined
      ? (curve?.level_names ?? []).filter((name) => name !== curve?.level)
      : []
  return useDrafts(
    names.map((name) => ({
      name,
      request: { document, candidate: candidate ?? null, effort: 'draft', level: name },
    })),
  )
}

function useDrafts(wanted: readonly Wanted[]): Others {
  const drafts = useLines(wanted.map(({ request }) => request))
  const single = useLines(
    wanted.map(({ request }, place) =>
      drafts[place]?.data?.state === 'failed' ? { ...request, effort: 'fast' } : undefined,
    ),
  )
  const lines = wanted.map((_, place) =>
    drafts[place]?.data?.state === 'failed' ? single[place] : drafts[place],
  )
  return {
    curves: wanted.flatMap(({ name }, place) => {
      const curve: CurveReport | undefined = curveOf(lines[place]?.data)
      return curve ? [{ name, curve }] : []
    }),
    notes: wanted.flatMap(({ name }, place) => {
      const line = lines[place]?.data
      const lacks = drafts[place]?.data?.state === 'failed' ? drafts[place].data.reason : undefined
      if (line?.state === 'failed') return [`${name} is not drawn: ${line.reason}`]
      if (lines[place]?.error) return [`${name} is not drawn: ${lines[place].error.message}`]
      return lacks === undefined ? [] : [`${name} is drawn by one cylinder alone: ${lacks}`]
    }),
  }
}

function useLines(requests: readonly (CurveRequest | undefined)[]) {
  return useQueries({
    queries: requests.map((request) =>
      jobQuery<CurveLine>('/api/curve', ['curve', request], request, () => undefined),
    ),
  })
}
