import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import type { SessionReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { useFaultText } from '../fields/faults'
import { asked, taken } from './sessions'

interface Props {
  readonly session: string
  readonly next: NonNullable<SessionReport['next']>
}

/** The next reading, in figures that are read from two metres: type it, Enter for the one after. */
export function NextReading({ session, next }: Props) {
  const work = useSession()
  const key = `bench ${session}`
  const refused = useSessionPart((state) => state.refusals[key])
  const fault = useFaultText(refused, next.table)
  const columns = asked(next)
  const [read, setRead] = useState<readonly string[]>([])
  const form = useRef<HTMLFormElement>(null)
  const inputs = () => [...(form.current?.querySelectorAll('input') ?? [])]
  useEffect(() => {
    form.current?.querySelector('input')?.focus()
  }, [next.place])
  const enter = () => {
    const empty = columns.findIndex((_, place) => !read[place]?.trim())
    if (empty >= 0) {
      inputs()[empty]?.focus()
      return
    }
    void work.type(key, read.join(', '), taken(session, next, read)).then(() => {
      if (!work.read().refusals[key]) setRead([])
    })
  }
  const back = () => {
    setRead([])
    work.forget(key)
    work.edit({ take_back: { session, table: next.table } })
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
      <p className="next-says">
        {next.says} <span className="quiet">{`${String(next.place)} of ${String(next.of)}`}</span>
      </p>
      <p className="quiet">{next.tool}</p>
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
                const typed = columns.map((_, i) =>
                  i === place ? event.target.value : (read[i] ?? ''),
                )
                setRead(typed)
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
        <Button type="primary" size="large" htmlType="submit">
          Next
        </Button>
        <Button size="large" onClick={back} disabled={next.place === 1}>
          Take back
        </Button>
      </div>
    </form>
  )
}
