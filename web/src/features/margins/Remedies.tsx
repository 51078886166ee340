import { Button } from 'antd'
import type { LimitReport } from '../../api/client'
import { freeId, pathFor, remedyName } from '../candidates/ids'
import { useSession, useSessionPart } from '../session/useSession'

type Remedy = LimitReport['remedies'][number]

/** What buys a margin back, each change by itself: made here, or as a candidate of its own. */
export function Remedies({ limit }: { limit: LimitReport }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const viewed = candidates[index]
  if (limit.remedies.length === 0) return null
  const asCandidate = (remedy: Remedy) => {
    if (!viewed) return
    const to = freeId(candidates.map((c) => c.id))
    session.edits([
      { duplicate: { candidate: viewed.id, to, name: remedyName(viewed.name, remedy.label, remedy.to) } },
      { set: { field: pathFor(remedy.field, index, candidates.length), text: remedy.to } },
    ], to)
  }
  return (
    <table>
      <caption>What buys it back, each by itself</caption>
      <tbody>
        {limit.remedies.map((remedy) => (
          <tr key={`${remedy.field}${remedy.to}`}>
            <td>{remedy.label} {remedy.from} → {remedy.to}<br /><span className="quiet">{remedy.gain_shown[system]}, {remedy.verdict}</span></td>
            <td className="remedy-actions">
              <Button size="small" aria-label={`Try ${remedy.label} ${remedy.to}`} onClick={() => { session.edit({ set: { field: remedy.field, text: remedy.to } }) }}>try</Button>
              <Button size="small" aria-label={`New candidate with ${remedy.label} ${remedy.to}`} title="As a candidate of its own" onClick={() => { asCandidate(remedy) }}>as new</Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
