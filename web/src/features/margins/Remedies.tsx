import { Button } from 'antd'
import type { Edit, LimitReport, Remedy } from '../../api/client'
import { freeId, pathFor, remedyName } from '../candidates/ids'
import { useSession, useSessionPart } from '../../model/useSession'
import { useParts } from '../shelf/useShelf'
import { inSentence } from '../fields/labels'

/** What buys a margin back, each way run against every limit: made here, or as a candidate of its own. */
export function Remedies({ limit }: { limit: LimitReport }) {
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const session = useSession()
  const parts = useParts()
  const viewed = candidates[index]
  if (!viewed || limit.remedies.length === 0) return null
  /** The edits of a remedy in the candidate at `place`. */
  const edits = (remedy: Remedy, place: number, id: string): Edit[] => {
    const part = parts.data?.find(
      ({ part }) => part.kind === remedy.part?.kind && part.name === remedy.part.name,
    )?.part
    if (part) return [{ use_part: { candidate: id, part, side: null } }]
    return remedy.changes.map(({ field, to }) => ({
      set: { field: place === index ? field : pathFor(field, index, place), text: to },
    }))
  }
  const asCandidate = (remedy: Remedy) => {
    const to = freeId(candidates.map((c) => c.id))
    const name = remedyName(
      viewed.name,
      labelOf(remedy),
      remedy.part ? '' : (remedy.changes[0]?.to ?? ''),
    )
    session.edits(
      [{ duplicate: { candidate: viewed.id, to, name } }, ...edits(remedy, candidates.length, to)],
      to,
    )
  }
  return (
    <table>
      <caption>What buys it back; none of it breaks a margin that is met</caption>
      <tbody>
        {limit.remedies.map((remedy) => (
          <tr key={keyOf(remedy)}>
            <td>
              <What remedy={remedy} />
            </td>
            <td className="remedy-actions">
              <Button
                size="small"
                aria-label={`Try ${keyOf(remedy)}`}
                onClick={() => session.edits(edits(remedy, index, viewed.id))}
              >
                try
              </Button>
              <Button
                size="small"
                aria-label={`New candidate with ${keyOf(remedy)}`}
                title="As a candidate of its own"
                onClick={() => asCandidate(remedy)}
              >
                as new
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function What({ remedy }: { remedy: Remedy }) {
  const system = useSessionPart((state) => state.system)
  return (
    <>
      {remedy.part ? (
        <div>
          {remedy.part.kind} {remedy.part.name}
          {remedy.price ? `, ${remedy.price[system]}` : ''}
        </div>
      ) : (
        remedy.changes.map((change) => (
          <div key={change.field}>
            {change.label} {change.from} → {change.to}
          </div>
        ))
      )}
      <span className="quiet">
        {remedy.gain_shown[system]}, {remedy.verdict}; takes {remedy.how}
      </span>
      {remedy.worsens.map((worse) => (
        <div key={`${worse.id}${worse.side ?? ''}`} className="quiet worsens">
          {inSentence(worse.title)}:{' '}
          {worse.from === worse.to ? `${worse.to} by more` : `${worse.from} → ${worse.to}`},{' '}
          {worse.margin[system]} left
        </div>
      ))}
    </>
  )
}

function labelOf(remedy: Remedy): string {
  return remedy.part?.name ?? remedy.changes[0]?.label ?? ''
}

function keyOf(remedy: Remedy): string {
  return remedy.part
    ? `${remedy.part.kind} ${remedy.part.name}`
    : remedy.changes.map((change) => `${change.label} ${change.to}`).join(' and ')
}
