import { usePlace } from '../../model/place'
import { useCandidate, useSession } from '../../model/useSession'
import { begun, freeId } from './sessions'

/** The way to the bench with a session of a kind: the one that was begun, or a new one. */
export function useMeasure(): (kind: string) => void {
  const work = useSession()
  const candidate = useCandidate()
  const { goToStep } = usePlace()
  return (kind) => {
    if (!candidate) return
    const open = candidate.sessions.find((own) => own.kind === kind)
    const id = open?.id ?? freeId(candidate.sessions)
    if (!open) work.edit(begun(kind, id, candidate.id, new Date()))
    work.lookAt(id)
    goToStep('bench')
  }
}
