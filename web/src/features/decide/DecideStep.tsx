import { useEffect, useState } from 'react'
import { useSession, useSessionPart } from '../../model/useSession'
import { Curves } from './Curves'
import { Figures } from './Figures'
import { Words } from './Words'
import './decide.css'

/** The page on which one decides: every candidate's curves, margins, springs, money and words. */
export function DecideStep() {
  const session = useSession()
  const columns = useSessionPart((state) => state.answer?.table)
  const [left, setLeft] = useState<readonly string[]>([])
  useEffect(() => {
    session.wantTable(true)
    return () => session.wantTable(false)
  }, [session])
  if (!columns) return <p className="quiet">Computing every candidate…</p>
  if (columns.length < 2) {
    return (
      <p>
        There is one candidate. Duplicate it from its tab, change one thing, and see here what that
        does.
      </p>
    )
  }
  const shown = columns.filter(({ id }) => !left.includes(id))
  return (
    <>
      <div className="choices decide-choices" role="group" aria-label="Candidates compared">
        {columns.map(({ id, name }) => (
          <label key={id} className="check">
            <input
              type="checkbox"
              checked={!left.includes(id)}
              onChange={() =>
                setLeft(left.includes(id) ? left.filter((other) => other !== id) : [...left, id])
              }
            />{' '}
            {name}
          </label>
        ))}
      </div>
      <Curves columns={shown} />
      <Figures columns={shown} />
      <Words columns={shown} />
    </>
  )
}
