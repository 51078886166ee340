import { useEffect, useState } from 'react'
import type { CurveLine, CurveRequest, Effort } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { useJob } from '../../model/useJob'

/** Curves that nobody looks at any more are forgotten after this; the server keeps them longer. */
const KEPT_MS = 30_000

/** A curve of one candidate; its points come as they are computed. */
export function useCurve(request: CurveRequest | undefined) {
  return useJob<CurveLine>('/api/curve', ['curve', request], request, KEPT_MS)
}

type CurveData = Extract<CurveLine, { state: 'done' }>['curve']
type Traces = Extract<CurveLine, { state: 'done' }>['traces']

export interface ShownCurve {
  readonly curve: CurveData | undefined
  readonly traces: Traces | undefined
  /** What keeps this build from full mode: the curve is that of one cylinder. */
  readonly lacks: Extract<CurveLine, { state: 'failed' }> | undefined
  /** The curve from before a drag, to see what it does. */
  readonly before: CurveData | undefined
  readonly failed: Extract<CurveLine, { state: 'failed' }> | undefined
  /** What goes on, in a word. */
  readonly doing: string
}

/** What a request is about, but for how much of it. */
function useSubject(level: string | undefined) {
  const shown = useSessionPart((state) => state.answer?.document)
  const kept = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const of = (document: string | undefined, effort: Effort): CurveRequest | undefined =>
    document === undefined || candidate === undefined
      ? undefined
      : { document, candidate, effort, level: level ?? null }
  return { shown, kept, of }
}

/** The curve of the candidate in view: a preview while something is dragged, then a draft, then in full. */
export function useShownCurve(level: string | undefined): ShownCurve {
  const { shown, kept, of } = useSubject(level)
  const dragged = shown !== undefined && shown !== kept
  // A drag asks faster than curves come: the next document is taken up when the one before it is answered.
  const [asked, setAsked] = useState<string>()
  const preview = useCurve(dragged ? of(asked, 'preview') : undefined)
  const next = dragged ? shown : undefined
  if (asked !== next && (next === undefined || !preview.isFetching)) setAsked(next)
  const draft = useCurve(of(kept, 'draft'))
  const isDrafted = draft.data?.state === 'done' && !dragged
  const full = useCurve(isDrafted ? of(kept, 'full') : undefined)
  const single = useCurve(draft.data?.state === 'failed' ? of(kept, 'fast') : undefined)
  const rest =
    full.data?.state === 'done'
      ? full.data
      : draft.data?.state === 'failed' && single.data
        ? single.data
        : draft.data
  const line = dragged ? (usable(preview.data) ?? rest) : rest
  const isSingle = single.data?.state === 'done' || single.data?.state === 'running'
  const trouble = draft.error ?? full.error ?? single.error
  // The limits take up what was computed: the server knows the curve by what it is computed from.
  const session = useSession()
  useEffect(() => {
    session.follow(true)
    return () => session.follow(false)
  }, [session])
  const found =
    full.data?.state === 'done'
      ? full.data
      : single.data?.state === 'done'
        ? single.data
        : undefined
  useEffect(() => {
    if (found) session.settle()
  }, [found, session])
  return {
    curve: curveOf(line),
    traces: rest?.state === 'done' ? rest.traces : undefined,
    lacks: isSingle && draft.data?.state === 'failed' ? draft.data : undefined,
    before: dragged ? curveOf(rest) : undefined,
    failed: line?.state === 'failed' ? line : undefined,
    doing: trouble
      ? trouble.message
      : dragged
        ? 'following the drag'
        : draft.isFetching
          ? 'drafting'
          : full.isFetching
            ? 'computing in full'
            : cutShort(full.data ?? draft.data),
  }
}

/** Why the last word is less than was asked for. */
function cutShort(line: CurveLine | undefined): string {
  return line?.state === 'stopped' ? 'stopped before its end' : ''
}

function usable(line: CurveLine | undefined): CurveLine | undefined {
  return line?.state === 'done' ? line : undefined
}

export function curveOf(line: CurveLine | undefined): CurveData | undefined {
  return line?.state === 'done' || line?.state === 'running' ? line.curve : undefined
}
