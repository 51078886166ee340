import { useCandidate, useSessionPart } from '../../model/useSession'
import { inSentence } from '../fields/labels'

/** Limits that what was computed of the gas went into. */
export function ComputedLimits() {
  const system = useSessionPart((state) => state.system)
  const limits = (useCandidate()?.limits ?? []).filter((limit) => limit.computed)
  if (limits.length === 0) return null
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">With the gas as computed</th>
          <th scope="col">Need</th>
          <th scope="col">Have</th>
          <th scope="col">Left over</th>
          <th scope="col">Verdict</th>
        </tr>
      </thead>
      <tbody>
        {limits.map((limit) => (
          <tr key={`${limit.id}${limit.side ?? ''}`}>
            <th scope="row" title={limit.formula}>
              {limit.title}
            </th>
            <td>
              {limit.shown
                ? `${typeof limit.need.min === 'number' ? 'at least' : 'up to'} ${limit.shown.need[system]}`
                : ''}
            </td>
            <td>
              {limit.shown?.have[system] ??
                `needs ${limit.missing.map((named) => inSentence(named.label)).join('; ')}`}
            </td>
            <td>{limit.shown?.margin[system] ?? ''}</td>
            <td className={limit.verdict}>{limit.verdict}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
