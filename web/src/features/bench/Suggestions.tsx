import { Button } from 'antd'
import type { SessionReport } from '../../api/client'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { takenOver } from './sessions'
import { Moves } from './Moves'

type Suggestion = SessionReport['suggests'][number]

/** What the document would say by the readings, what that would move, and one click that takes it. */
export function Suggestions({ shown }: { readonly shown: SessionReport }) {
  const session = useSession()
  const candidate = useCandidate()?.id ?? ''
  const all = shown.suggests
  const { left } = shown
  if (all.length === 0) return left.length > 0 ? <Left left={left} /> : null
  const leave = ({ label, to }: Suggestion) =>
    session.edit({ leave_suggestion: { session: shown.id, label, to } })
  const edits = all.map((one) => takenOver(one, candidate))
  return (
    <section className="suggestions" aria-label="What the document would say by it">
      <h2>What the document would say by it</h2>
      {all.map((one, place) => (
        <One
          key={one.field}
          one={one}
          onTake={() => session.edits(edits[place] ?? [])}
          onLeave={() => leave(one)}
        />
      ))}
      <Moves edits={edits.flat()} />
      {all.length > 1 ? (
        <Button size="small" onClick={() => session.edits(edits.flat())}>
          Take all of it
        </Button>
      ) : null}
      {left.length > 0 ? <Left left={left} /> : null}
    </section>
  )
}

/** What was left as it was; offered again when readings say something else. */
function Left({ left }: { readonly left: SessionReport['left'] }) {
  return (
    <p className="quiet">
      Left as it was: {left.map(([label, to]) => `${label ?? ''}, read as ${to ?? ''}`).join('; ')}.
    </p>
  )
}

interface OneProps {
  readonly one: Suggestion
  readonly onTake: () => void
  readonly onLeave: () => void
}

function One({ one, onTake, onLeave }: OneProps) {
  const system = useSessionPart((state) => state.system)
  return (
    <p className="suggestion">
      <span>
        {one.label}: {one.from || 'not given'} → <b>{one.to}</b>
        {one.doubt ? <span className="quiet"> ± {one.doubt}</span> : null}
        <span className="quiet">, {one.why[system]}</span>
      </span>
      <Button size="small" aria-label={`Take ${one.label}`} onClick={onTake}>
        Take
      </Button>
      <Button size="small" aria-label={`Leave ${one.label} as it is`} onClick={onLeave}>
        Leave it
      </Button>
    </p>
  )
}
