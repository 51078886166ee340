import { Button } from 'antd'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { today } from '../bench/lines'

interface Props {
  /** Identifier of the candidate that the log has in the engine. */
  readonly inEngine: string | undefined
}

/**
 * Asks for the report of the candidate in the engine, of the one in view where the log names none, in a tab of its own: a page to
 * print or to keep.
 */
export function OwnerReport({ inEngine }: Props) {
  const viewed = useCandidate()
  const named = useSessionPart((state) =>
    state.answer?.candidates.find(({ id }) => id === inEngine),
  )
  const candidate = named ?? viewed
  const document = useSessionPart((state) => state.history.present)
  const build = useSessionPart((state) => state.summary.id)
  const system = useSessionPart((state) => state.system)
  if (!candidate) return null
  const sent = { document, build, candidate: candidate.id, system, today: today(new Date()) }
  return (
    <form method="post" action="/api/owner" target="_blank" className="no-print">
      {Object.entries(sent).map(([name, value]) => (
        <input key={name} type="hidden" name={name} value={value} />
      ))}
      <Button size="small" htmlType="submit">
        Report for the owner
      </Button>{' '}
      <span className="quiet">
        of {candidate.name}: plan, cam, limits, torque, service and what became of it, with pictures
        and cautions; to print or to keep
      </span>
    </form>
  )
}
