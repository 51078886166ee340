import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import type { SessionReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { useFaultText } from '../fields/faults'
import type { Next } from './sessions'
import { asked, taken } from './sessions'
import { Tool } from './Tool'

interface Props {
  readonly shown: SessionReport
}

/** The next reading, in figures that are read from two metres: type it, Enter for the one after; or the last one once more. */
export function NextReading({ shown }: Props) {
  const work = useSession()
  const key = `bench ${shown.id}`
  const refused = useSessionPart((state) => state.refusals[key])
  const [again, setAgain] = useState(false)
  const [read, setRead] = useState<readonly string[]>([])
  const form = useRef<HTMLFormElement>(null)
  const next = again && shown.last ? shown.last : (shown.next ?? undefined)
  const fault = useFaultText(refused, next?.table)
  const columns = next ? asked(next) : []
  useEffect(() => {
    form.current?.querySelector('input')?.focus()
  }, [next?.place, again])
  const enter = () => {
    const empty = columns.findIndex((_, place) => !read[place]?.trim())
    if (!next || empty >= 0) {
      form.current?.querySelectorAll('input')[empty]?.focus()
      return
    }
    void work.type(key, read.join(', '), taken(shown.id, next, read)).then(() => {
      if (work.read().refusals[key]) return
      setRead([])
      setAgain(false)
    })
  }
  const back = () => {
    setRead([])
    setAgain(false)
    work.forget(key)
    if (shown.last) work.edit({ take_back: { session: shown.id, table: shown.last.table } })
  }
  const repeat = () => {
    setRead([])
    setAgain(true)
  }
  return (
    <form
      ref={form}
      className="next-reading"
      aria-label="Next reading"
      onSubmit={(event) => {
        event.preventDefault()
        enter()
      }}
    >
      <div>
        <p className="next-says">
          {next ? next.says : 'Everything that is asked for was read.'}{' '}
          {next ? <span className="quiet">{placeOf(next, again)}</span> : null}
        </p>
        {next ? <p className="quiet">{next.tool}</p> : null}
        <div className="next-cells">
          {columns.map((label, place) => (
            <label key={label}>
              <span>{label}</span>
              <input
                type="text"
                inputMode="decimal"
                autoComplete="off"
                value={read[place] ?? ''}
                aria-invalid={fault !== undefined}
                onChange={(event) => {
                  const typed = event.target.value
                  setRead(columns.map((_, i) => (i === place ? typed : (read[i] ?? ''))))
                }}
                onKeyDown={(event) => {
                  // Enter goes to the cell after; from the last one it takes the reading.
                  const after = form.current?.querySelectorAll('input')[place + 1]
                  if (event.key !== 'Enter' || !after) return
                  event.preventDefault()
                  after.focus()
                }}
              />
            </label>
          ))}
        </div>
        {fault ? (
          <p className="fault" role="alert">
            {fault}
          </p>
        ) : null}
        <div className="next-keys no-print">
          {next ? (
            <Button type="primary" size="large" htmlType="submit">
              Next
            </Button>
          ) : null}
          <Button size="large" onClick={back} disabled={!shown.last}>
            Take back
          </Button>
          <Button size="large" onClick={repeat} disabled={!shown.last || again}>
            Once more
          </Button>
        </div>
      </div>
      {next ? <Tool gauge={next.gauge} /> : null}
    </form>
  )
}

/** Which of all it is. Pure. */
function placeOf({ place, of }: Next, again: boolean): string {
  return again ? 'once more' : `${String(place)} of ${String(of)}`
}
