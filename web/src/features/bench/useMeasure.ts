import { usePlace } from '../../model/place'
import { useCandidate, useSession } from '../../model/useSession'
import { begun, freeId } from './sessions'

/** Begins a session of a kind, and looks at it. */
export function useBegin(): (kind: string) => void {
  const work = useSession()
  const candidate = useCandidate()
  return (kind) => {
    if (!candidate) return
    const id = freeId(candidate.sessions)
    work.edit(begun(kind, id, candidate.id, new Date()))
    work.lookAt(id)
  }
}

/** The way to the bench with a session of a kind: the one that was begun, or a new one. */
export function useMeasure(): (kind: string) => void {
  const work = useSession()
  const candidate = useCandidate()
  const { goToStep } = usePlace()
  const begin = useBegin()
  return (kind) => {
    const open = candidate?.sessions.find((own) => own.kind === kind)
    if (open) work.lookAt(open.id)
    else begin(kind)
    goToStep('bench')
  }
}
