import { Button } from 'antd'
import { useEffect } from 'react'
import type { ReactNode } from 'react'
import type { SessionReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { isDevice, useMe } from '../../model/useMe'
import { isUnsaved } from '../../model/state'
import { useSession, useSessionPart } from '../../model/useSession'
import { NextReading } from './NextReading'
import { Said } from './Said'
import { SentReadings } from './SentReadings'
import { titleOf, VERDICTS } from './sessions'
import './sessions.css'
import { Suggestions } from './Suggestions'
import { useSessions } from './useSessions'
import { useTaking } from './useTaking'

/** One session beside the engine: figures that are read from two metres, targets for dirty hands, and nothing else. */
export function AtEngine({ onClose }: { readonly onClose: () => void }) {
  const { place, openPaper } = usePlace()
  const { me } = useMe()
  const { sessions, shown } = useSessions(place.focus)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onClose()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [onClose])
  const open = (id: string) => openPaper('at-engine', id)
  const looksOnly = me?.role === 'look'
  return (
    <article className="at-engine">
      <header className="at-engine-bar">
        <h1>{shown ? titleOf(shown) : 'At the bench'}</h1>
        <span className={`session-word ${shown?.verdict ?? ''}`}>
          {shown ? VERDICTS[shown.verdict] : ''}
        </span>
        {isDevice(me) ? null : <UndoAndSave />}
        <Button size="large" onClick={onClose}>
          Leave
        </Button>
      </header>
      {isDevice(me) && !looksOnly ? <SentReadings shown={shown} onOpen={open} /> : null}
      {shown && !isDevice(me) ? <KeptReadings shown={shown} /> : null}
      {shown && looksOnly ? <Said shown={shown} /> : null}
      {shown || isDevice(me) ? null : <p>Nothing was begun yet.</p>}
      <Others>
        {sessions
          .filter((one) => one.id !== shown?.id)
          .map((one) => (
            <Button key={one.id} size="large" onClick={() => open(one.id)}>
              {titleOf(one)}
            </Button>
          ))}
      </Others>
    </article>
  )
}

/** At the main screen: into its document. */
function KeptReadings({ shown }: { readonly shown: SessionReport }) {
  const taking = useTaking(shown)
  return (
    <>
      <NextReading key={shown.id} taking={taking} />
      <Said shown={shown} />
      <Suggestions shown={shown} />
    </>
  )
}

function UndoAndSave() {
  const work = useSession()
  const canUndo = useSessionPart((state) => state.history.past.length > 0)
  const unsaved = useSessionPart(isUnsaved)
  return (
    <>
      <Button size="large" disabled={!canUndo} onClick={() => work.undo()}>
        Undo
      </Button>
      <Button
        size="large"
        type={unsaved ? 'primary' : 'default'}
        disabled={!unsaved}
        onClick={() => work.save()}
      >
        Save
      </Button>
    </>
  )
}

function Others({ children }: { readonly children: ReactNode[] }) {
  if (children.length === 0) return null
  return (
    <nav className="at-engine-others" aria-label="Sessions">
      {children}
    </nav>
  )
}
