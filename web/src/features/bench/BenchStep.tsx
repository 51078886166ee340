import { Button, Segmented } from 'antd'
import { useState } from 'react'
import { useCandidate } from '../../model/useSession'
import { Assembly } from './Assembly'
import { KindSelect } from './KindSelect'
import { Session } from './Session'
import { titleOf, VERDICTS } from './sessions'
import './sessions.css'
import { useBegin } from './useMeasure'
import { useSessions } from './useSessions'

type View = 'measure' | 'assemble'

/** Measuring beside the engine: one session at a time, one reading at a time. */
export function BenchStep() {
  const candidate = useCandidate()
  const begin = useBegin()
  const [kind, setKind] = useState<string>(
    // What settles most comes first.
    () => candidate?.measure_next.find((own) => own.session)?.session ?? 'degree_in',
  )
  const { sessions, shown, look } = useSessions()
  const [view, setView] = useState<View>('measure')
  if (!candidate) return null
  if (view === 'assemble')
    return (
      <>
        <Views view={view} onView={setView} />
        <Assembly />
      </>
    )
  return (
    <section className="at-the-bench" aria-label="At the bench">
      <Views view={view} onView={setView} />
      <div className="sessions-begun no-print">
        <KindSelect kind={kind} onKind={setKind} />
        <Button type={shown ? 'default' : 'primary'} onClick={() => begin(kind)}>
          Begin
        </Button>
        <nav aria-label="Sessions">
          {sessions.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-current={one.id === shown?.id}
              onClick={() => look(one.id)}
            >
              {titleOf(one)} <span className="quiet">{VERDICTS[one.verdict]}</span>
            </button>
          ))}
        </nav>
      </div>
      {shown ? (
        <Session key={shown.id} shown={shown} />
      ) : (
        <p className="quiet">
          Nothing was measured yet. Each session leads through its readings; what they say is held
          against the plan, and nothing is taken over by itself.
        </p>
      )}
    </section>
  )
}

function Views({ view, onView }: { view: View; onView: (view: View) => void }) {
  return (
    <Segmented<View>
      className="bench-views no-print"
      aria-label="At the bench"
      value={view}
      onChange={onView}
      options={[
        { value: 'measure', label: 'Measure' },
        { value: 'assemble', label: 'Assemble' },
      ]}
    />
  )
}
