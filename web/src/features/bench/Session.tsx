import { Button } from 'antd'
import type { SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSession, useSessionPart } from '../../model/useSession'
import { Said } from './Said'
import { SessionFields } from './SessionFields'
import { NextReading } from './NextReading'
import { Suggestions } from './Suggestions'
import { useTaking } from './useTaking'

interface Props {
  readonly shown: SessionReport
}

/** One session: the next reading in large figures, what was read, what it says and suggests. */
export function Session({ shown }: Props) {
  const session = useSession()
  const { openPaper } = usePlace()
  const taking = useTaking(shown)
  const remove = () => {
    session.lookAt(undefined)
    session.edit({ remove_session: { session: shown.id } })
  }
  return (
    <div className="session">
      <NextReading key={shown.id} taking={taking} />
      <Said shown={shown} />
      <Suggestions shown={shown} />
      <Figures shown={shown} />
      <SessionFields />
      <div className="next-keys no-print">
        <Button size="small" onClick={() => openPaper('at-engine', shown.id)}>
          Large, beside the engine
        </Button>
        <Button size="small" onClick={() => openPaper('session-sheet', shown.id)}>
          On paper
        </Button>
        <Button size="small" onClick={remove}>
          Take this session out
        </Button>
      </div>
    </div>
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
