import { Segmented } from 'antd'
import { useState } from 'react'
import { useSessionPart } from '../../model/useSession'
import type { AirWord } from './airs'
import { Compare } from './Compare'
import './dyno.css'
import { Plan } from './Plan'
import { Predicted } from './Predicted'
import { Pulls } from './Pulls'
import { useDyno } from './useDyno'
import { Shop } from './Shop'
import { Wrong } from './Wrong'

type View = 'plan' | 'pulls' | 'compare' | 'predicted' | 'wrong' | 'shop'

/** On the dyno: what to run, what was run, and what of it is to be believed. */
export function DynoStep() {
  const [air, setAir] = useState<AirWord>('as_planned')
  const { data, error } = useDyno(air)
  const system = useSessionPart((state) => state.system)
  const [chosen, setView] = useState<View>()
  const [first, setFirst] = useState<View>()
  if (error)
    return (
      <p className="fault" role="alert">
        {error.message}
      </p>
    )
  if (!data) return <p className="quiet">Reading the pulls…</p>
  const { pulls, plan } = data
  // What there is when one comes decides what is seen first; pulls that come in meanwhile move nothing away.
  if (first === undefined) setFirst(pulls.differences.length > 0 ? 'compare' : 'plan')
  const view = chosen ?? first ?? 'plan'
  return (
    <section className="dyno" aria-label="On the dyno">
      <p className="answer">{pulls.says[system]}</p>
      <Segmented<View>
        className="no-print"
        aria-label="On the dyno"
        value={view}
        onChange={setView}
        options={[
          { value: 'plan', label: 'Plan' },
          { value: 'pulls', label: `Pulls ${String(pulls.pulls.length)}` },
          { value: 'compare', label: 'Is it real' },
          { value: 'predicted', label: 'Against the model' },
          { value: 'wrong', label: 'What is wrong' },
          { value: 'shop', label: 'The shop' },
        ]}
      />
      {view === 'plan' && plan ? (
        <Plan plan={plan} report={pulls} onPulls={() => setView('pulls')} />
      ) : null}
      {view === 'pulls' ? <Pulls report={pulls} plan={plan ?? undefined} /> : null}
      {view === 'predicted' ? <Predicted /> : null}
      {view === 'shop' ? <Shop /> : null}
      {view === 'wrong' ? <Wrong report={pulls} /> : null}
      {view === 'compare' ? <Compare report={pulls} air={air} onAir={setAir} /> : null}
    </section>
  )
}
