import type { LimitReport } from '../../api/client'
import { useCandidate, useSessionPart } from '../session/useSession'

/** Limits that ask for the gas: what was computed, and the estimate the margins stand on beside it. */
export function ComputedLimits({ limits }: { limits: readonly LimitReport[] }) {
  const system = useSessionPart((state) => state.system)
  const estimates = useCandidate()?.limits ?? []
  if (limits.length === 0) return null
  return (
    <table className="figures">
      <thead><tr><th scope="col">With the gas as computed</th><th scope="col">Need</th><th scope="col">Have</th><th scope="col">Left over</th><th scope="col">Verdict</th><th scope="col">By estimate</th></tr></thead>
      <tbody>
        {limits.map((limit) => {
          const estimate = estimates.find((other) => other.id === limit.id && other.side === limit.side)
          return (
            <tr key={`${limit.id}${limit.side ?? ''}`}>
              <th scope="row" title={limit.formula}>{limit.title}</th>
              <td>{limit.shown ? `${typeof limit.need.min === 'number' ? 'at least' : 'up to'} ${limit.shown.need[system]}` : ''}</td>
              <td>{limit.shown?.have[system] ?? `give ${limit.missing.join(', ')}`}</td>
              <td>{limit.shown?.margin[system] ?? ''}</td>
              <td className={limit.verdict}>{limit.verdict}</td>
              <td className="quiet">{estimate ? `${estimate.shown?.have[system] ?? ''} ${estimate.verdict}` : 'none'}</td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
