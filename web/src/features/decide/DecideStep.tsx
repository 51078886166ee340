import { useEffect, useState } from 'react'
import { useSession, useSessionPart } from '../../model/useSession'
import { Board } from '../score/Board'
import { Curves } from './Curves'
import { Figures } from './Figures'
import { earlier, inWantedOrder } from './rows'
import { Words } from './Words'
import './decide.css'

/** The page on which one decides: every candidate's curves, margins, springs, money and words. */
export function DecideStep() {
  const session = useSession()
  const columns = useSessionPart((state) => state.answer?.table)
  const [left, setLeft] = useState<readonly string[]>([])
  const [order, setOrder] = useState<readonly string[]>([])
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
  const ordered = inWantedOrder(columns, order)
  const shown = ordered.filter(({ id }) => !left.includes(id))
  const ids = ordered.map(({ id }) => id)
  return (
    <>
      <div className="choices decide-choices" role="group" aria-label="Candidates compared">
        {ordered.map(({ id, name }, place) => (
          <span key={id} className="decide-choice">
            {place > 0 ? (
              <button
                type="button"
                className="link quiet"
                aria-label={`${name} before ${ordered[place - 1]?.name ?? ''}`}
                title="A place earlier"
                onClick={() => setOrder(earlier(ids, id))}
              >
                ◂
              </button>
            ) : null}
            <label className="check">
              <input
                type="checkbox"
                checked={!left.includes(id)}
                onChange={() =>
                  setLeft(left.includes(id) ? left.filter((other) => other !== id) : [...left, id])
                }
              />{' '}
              {name}
            </label>
          </span>
        ))}
      </div>
      <Curves columns={shown} />
      <Board />
      <Figures columns={shown} />
      <Words columns={shown} />
    </>
  )
}
