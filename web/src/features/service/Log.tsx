import { Button, Select } from 'antd'
import { useEffect, useState } from 'react'
import type { ServiceReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { today } from '../bench/lines'
import { Entry } from './Entry'
import { EVENTS, eventWords, freeId } from './entries'
import { Failures } from './Failures'

/** Every entry by its day, the one that is looked at, and a new one. */
export function Log({ report }: { report: ServiceReport }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const looked = useSessionPart((state) => state.entry)
  const shown = report.entries.find(({ id }) => id === looked)
  // Asked for as long as the log is seen: a new entry is looked at before the report has it.
  useEffect(() => () => session.lookAtEntry(undefined), [session])
  return (
    <>
      <NewEntry report={report} />
      {report.entries.length > 0 ? (
        <div className="wide-table">
          <table className="figures log">
            <thead>
              <tr>
                <th scope="col">Day</th>
                <th scope="col">At</th>
                <th scope="col">What</th>
                <th scope="col">Read and found</th>
              </tr>
            </thead>
            <tbody>
              {report.entries.map((own) => (
                <tr key={own.id} aria-current={own.id === looked}>
                  <th scope="row">
                    <button
                      type="button"
                      className="link"
                      onClick={() => session.lookAtEntry(own.id)}
                    >
                      {own.date}
                    </button>
                  </th>
                  <td>{own.at}</td>
                  <td className="words">{eventWords(own.event)}</td>
                  <td className="words">
                    {own.says[system]}
                    {own.problem === '' ? null : (
                      <div className="fault">Not counted with: {own.problem}</div>
                    )}
                    {own.asks.map((ask) => (
                      <div key={ask[system]} className="fault">
                        {ask[system]}
                      </div>
                    ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
      <Failures report={report} />
      {shown ? <Entry key={shown.id} entry={shown} cylinders={report.cylinders} /> : null}
    </>
  )
}

/** A new entry: its day, how far it had run, and what was done. */
function NewEntry({ report }: { report: ServiceReport }) {
  const session = useSession()
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const isFirst = report.entries.length === 0
  const [date, setDate] = useState(() => today(new Date()))
  const [at, setAt] = useState('')
  const [event, setEvent] = useState<string>()
  const chosen = event ?? (isFirst ? 'assembled' : 'inspection')
  const use = at.trim() === '' && isFirst ? '0' : at.trim()
  const begin = () => {
    const entry = freeId(report.entries.map(({ id }) => id))
    session.edit({
      begin_entry: {
        entry,
        date,
        at: /[a-z]/i.test(use) || use === '' ? use : `${use} ${report.unit}`,
        event: chosen,
        candidate: candidate ?? '',
        by: '',
      },
    })
    session.lookAtEntry(entry)
    setAt('')
    setEvent(undefined)
  }
  return (
    <form
      className="new-entry no-print"
      aria-label="New entry"
      onSubmit={(submitted) => {
        submitted.preventDefault()
        begin()
      }}
    >
      <label>
        Day <input value={date} required onChange={(on) => setDate(on.target.value)} />
      </label>
      <label>
        At{' '}
        <input
          className="use"
          value={at}
          placeholder={isFirst ? `0 ${report.unit}` : `so many ${report.unit}`}
          onChange={(on) => setAt(on.target.value)}
        />{' '}
        <span className="quiet">mi, km, h or passes</span>
      </label>
      <Select
        size="small"
        aria-label="What was done"
        value={chosen}
        popupMatchSelectWidth={false}
        options={EVENTS.map((value) => ({ value, label: eventWords(value) }))}
        onChange={setEvent}
      />
      <Button size="small" type="primary" htmlType="submit">
        Write it down
      </Button>
    </form>
  )
}
