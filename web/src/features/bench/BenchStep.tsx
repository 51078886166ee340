import { Button, Select } from 'antd'
import { useState } from 'react'
import type { SessionReport } from '../../api/client'
import { useCandidate, useSession } from '../../model/useSession'
import { Session } from './Session'
import { KINDS, begun, freeId } from './sessions'
import './sessions.css'

const WORDS: Record<SessionReport['verdict'], string> = {
  agrees: 'agrees',
  differs: 'differs',
  questioned: 'look again',
  unclear: '',
}

/** Measuring beside the engine: one session at a time, one reading at a time. */
export function BenchStep() {
  const session = useSession()
  const candidate = useCandidate()
  const sessions = candidate?.sessions ?? []
  const [kind, setKind] = useState<string>(KINDS[0].value)
  const [chosen, setChosen] = useState<string>()
  const shown = sessions.find(({ id }) => id === chosen) ?? sessions.at(-1)
  if (!candidate) return null
  const begin = () => {
    const id = freeId(sessions)
    session.edit(begun(kind, id, candidate.id, new Date()))
    setChosen(id)
  }
  return (
    <section className="at-the-bench" aria-label="At the bench">
      <div className="sessions-begun no-print">
        <Select
          aria-label="What is measured"
          value={kind}
          options={[...KINDS]}
          popupMatchSelectWidth={false}
          onChange={setKind}
        />
        <Button type="primary" onClick={begin}>
          Begin
        </Button>
        <nav aria-label="Sessions">
          {sessions.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-current={one.id === shown?.id}
              onClick={() => setChosen(one.id)}
            >
              {titleOf(one)} <span className="quiet">{WORDS[one.verdict]}</span>
            </button>
          ))}
        </nav>
      </div>
      {shown ? (
        <Session key={shown.id} shown={shown} />
      ) : (
        <p className="quiet">
          Nothing was measured yet. Each session leads through its readings; what they say is held
          against the plan, and nothing is taken over by itself.
        </p>
      )}
    </section>
  )
}

/** A session's name with its valve. Pure. */
function titleOf({ title, cylinder, side }: SessionReport): string {
  return side ? `${title}, ${String(cylinder)} ${side}` : title
}
