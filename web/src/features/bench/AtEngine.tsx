import { Button } from 'antd'
import { useEffect } from 'react'
import { usePlace } from '../../model/place'
import { useSession, useSessionPart } from '../../model/useSession'
import { NextReading } from './NextReading'
import { Said } from './Said'
import { titleOf, VERDICTS } from './sessions'
import './sessions.css'
import { Suggestions } from './Suggestions'
import { useSessions } from './useSessions'

/** One session beside the engine: figures that are read from two metres, targets for dirty hands, and nothing else. */
export function AtEngine({ onClose }: { readonly onClose: () => void }) {
  const work = useSession()
  const { place, openPaper } = usePlace()
  const { sessions, shown } = useSessions(place.focus)
  const canUndo = useSessionPart((state) => state.history.past.length > 0)
  const unsaved = useSessionPart((state) => state.history.present !== state.savedDocument)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onClose()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [onClose])
  return (
    <article className="at-engine">
      <header className="at-engine-bar">
        <h1>{shown ? titleOf(shown) : 'At the bench'}</h1>
        <span className={`session-word ${shown?.verdict ?? ''}`}>
          {shown ? VERDICTS[shown.verdict] : ''}
        </span>
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
        <Button size="large" onClick={onClose}>
          Leave
        </Button>
      </header>
      {shown ? (
        <>
          <NextReading key={shown.id} shown={shown} />
          <Said shown={shown} />
          <Suggestions shown={shown} />
        </>
      ) : (
        <p>Nothing was begun yet.</p>
      )}
      {sessions.length > 1 ? (
        <nav className="at-engine-others" aria-label="Sessions">
          {sessions
            .filter((one) => one.id !== shown?.id)
            .map((one) => (
              <Button key={one.id} size="large" onClick={() => openPaper('at-engine', one.id)}>
                {titleOf(one)}
              </Button>
            ))}
        </nav>
      ) : null}
    </article>
  )
}
