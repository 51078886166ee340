import { faultText } from '../fields/faults'
import { useSessionPart } from '../../model/useSession'
import { useFresh } from './useFresh'

const MOST = 9

/** One line that says what the last edit moved, before and after, or why it was refused. */
export function MovedLine() {
  const moved = useSessionPart((state) => state.moved)
  const fault = useSessionPart(
    (state) => state.faults[0] ?? Object.values(state.refusals).at(-1)?.faults[0],
  )
  const system = useSessionPart((state) => state.system)
  const fresh = useFresh(moved)
  if (fault) {
    return (
      <div className="moved refused" role="alert">
        <b>Refused, nothing changed</b>
        <span>
          {fault.label}: “{fault.given}” {faultText(fault, system, fault.field)}
        </span>
      </div>
    )
  }
  if (moved.length === 0) return <div className="moved empty">Nothing moved yet.</div>
  const shown = moved.slice(0, MOST)
  return (
    <div className={fresh ? 'moved' : 'moved settled'} role="status">
      <b>Moved</b>
      {shown.map((m) => (
        <span key={m.id}>
          {m.label} <s>{m.before}</s> {m.after}
        </span>
      ))}
      {moved.length > MOST ? <span className="quiet">and {moved.length - MOST} more</span> : null}
    </div>
  )
}
