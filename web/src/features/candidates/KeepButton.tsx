import { useSession, useSessionPart } from '../../model/useSession'
import { freeId } from './ids'

/** Keeps a candidate that somebody proposes as one of its own: one step of undo. */
export function KeepButton({ name, candidate }: { name: string; candidate: unknown }) {
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates)
  if (!candidate) return null
  const keep = () => {
    const to = freeId((candidates ?? []).map(({ id }) => id))
    session.edits([{ keep_candidate: { to, name, candidate } }], to)
  }
  return (
    <button type="button" className="small" onClick={keep}>
      Keep as candidate
    </button>
  )
}
