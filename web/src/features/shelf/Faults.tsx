import type { Refusal } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

const MOST = 20

/** Why something was refused, fault by fault, each with what it needs and what to write instead. */
export function Faults({ refusal }: { refusal: Refusal }) {
  const system = useSessionPart((state) => state.system)
  const faults = refusal.problem.faults ?? []
  const lines =
    faults.length > 0
      ? faults.map(
          (fault) =>
            `${fault.label}: ${fault.given}, needs ${fault.shown?.[system] ?? fault.needs}${fault.cure ? `; ${fault.cure}` : ''}`,
        )
      : [refusal.message]
  return (
    <ul className="fault-list fault" role="alert">
      {lines.slice(0, MOST).map((line) => (
        <li key={line}>{line}</li>
      ))}
      {lines.length > MOST ? <li>and {lines.length - MOST} more</li> : null}
    </ul>
  )
}
