import { Button } from 'antd'
import type { SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSession, useSessionPart } from '../../model/useSession'
import { NextReading } from './NextReading'
import { takenOver } from './sessions'

interface Props {
  readonly shown: SessionReport
}

/** One session: the next reading in large figures, what was read, what it says and suggests. */
export function Session({ shown }: Props) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const remove = () => session.edit({ remove_session: { session: shown.id } })
  return (
    <div className="session">
      {shown.next ? (
        <NextReading session={shown.id} next={shown.next} />
      ) : (
        <p className="session-whole">Everything that is asked for was read.</p>
      )}
      <p className={`session-says ${shown.verdict}`} role="status">
        {shown.says[system]}
        {shown.needs.length > 0 ? <Needs needs={shown.needs} /> : null}
      </p>
      {shown.questions.map((question) => (
        <p key={question} className="fault" role="alert">
          Look again: {question}
        </p>
      ))}
      <Suggestions shown={shown} />
      <Figures shown={shown} />
      <Button size="small" onClick={remove}>
        Take this session out
      </Button>
    </div>
  )
}

function Needs({ needs }: { needs: SessionReport['needs'] }) {
  const { goToField } = usePlace()
  return needs.map(({ field, label }) => (
    <button key={field} type="button" className="link" onClick={() => goToField(field)}>
      {label}
    </button>
  ))
}

function Suggestions({ shown }: Props) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const all = shown.suggests
  if (all.length === 0) return null
  return (
    <table className="figures">
      <caption>What the document would say by it</caption>
      <tbody>
        {all.map((one) => (
          <tr key={one.field}>
            <th scope="row">{one.label}</th>
            <td>
              {one.from} → <b>{one.to}</b>
              <span className="quiet">, {one.why[system]}</span>
            </td>
            <td>
              <Button
                size="small"
                aria-label={`Take ${one.label}`}
                onClick={() => session.edits(takenOver(one))}
              >
                Take
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Figures({ shown }: Props) {
  const system = useSessionPart((state) => state.system)
  if (shown.figures.length === 0) return null
  return (
    <table className="figures">
      <caption>What was read</caption>
      <thead>
        <tr>
          <th scope="col">Reading</th>
          <th scope="col">Read</th>
          <th scope="col">Expected</th>
          <th scope="col">Off</th>
        </tr>
      </thead>
      <tbody>
        {shown.figures.map((one) => (
          <tr key={one.label}>
            <th scope="row">{one.label}</th>
            <td>
              <b>{one.read[system]}</b>
              {one.doubt ? <span className="quiet"> ± {one.doubt[system]}</span> : null}
            </td>
            <td>{one.expected?.[system] ?? ''}</td>
            <td>
              {one.off?.[system] ?? ''}
              {one.stands_out ? <span className="word tight"> stands out</span> : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
