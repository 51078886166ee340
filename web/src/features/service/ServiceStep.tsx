import { Segmented } from 'antd'
import { useState } from 'react'
import { useSessionPart } from '../../model/useSession'
import { Due } from './Due'
import { Log } from './Log'
import { OwnerReport } from './OwnerReport'
import './service.css'
import { Story } from './Story'
import { useService } from './useService'
import { Wears } from './Wears'

type View = 'log' | 'wears' | 'due' | 'story'

/** On the road: what was measured and changed while it ran, what wears, and what is due. */
export function ServiceStep() {
  const { data, error } = useService()
  const system = useSessionPart((state) => state.system)
  const [view, setView] = useState<View>('log')
  if (error)
    return (
      <p className="fault" role="alert">
        {error.message}
      </p>
    )
  if (!data) return <p className="quiet">Reading the log…</p>
  const late = data.next.filter(({ overdue }) => overdue).length
  return (
    <section className="service" aria-label="On the road">
      <p className="answer">{data.says[system]}</p>
      <Segmented<View>
        className="no-print"
        aria-label="On the road"
        value={view}
        onChange={setView}
        options={[
          { value: 'log', label: `Log ${String(data.entries.length)}` },
          { value: 'wears', label: 'What wears' },
          { value: 'due', label: late > 0 ? `Due, ${String(late)} late` : 'Due' },
          { value: 'story', label: 'What became of it' },
        ]}
      />
      {view === 'log' ? <Log report={data} /> : null}
      {view === 'wears' ? <Wears report={data} /> : null}
      {view === 'due' ? <Due report={data} /> : null}
      {view === 'story' ? (
        <>
          <OwnerReport inEngine={data.in_engine ?? undefined} />
          <Story />
        </>
      ) : null}
    </section>
  )
}
