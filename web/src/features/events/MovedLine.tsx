import { useSessionState } from '../session/useSession'

const MOST = 11

/** One line that says what the last edit moved, before and after. It fades; undo takes it back. */
export function MovedLine() {
  const { moved } = useSessionState()
  if (moved.length === 0) return <div className="moved empty">Nothing moved yet.</div>
  const shown = moved.slice(0, MOST)
  return (
    <div className="moved" key={moved.map((m) => `${m.id}${m.after}`).join()} role="status">
      <b>Moved</b>
      {shown.map((m) => <span key={m.id}>{m.label} <s>{m.before}</s> {m.after}</span>)}
      {moved.length > MOST ? <span className="quiet">and {moved.length - MOST} more</span> : null}
    </div>
  )
}
