import { Button } from 'antd'
import type { SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSession } from '../../model/useSession'
import { Budget } from './Budget'
import { Figures } from './Figures'
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
      {shown.kind === 'valve_drop' || shown.kind === 'clay' ? (
        <Budget side={shown.side ?? 'intake'} />
      ) : null}
      <SessionFields key={shown.id} id={shown.id} />
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
