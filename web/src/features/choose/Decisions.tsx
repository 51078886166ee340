import { Segmented } from 'antd'
import { useState } from 'react'
import type { DecisionReport } from '../../api/client'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { nearestTo } from '../charts/series'
import { Reserves } from './Reserves'
import { editOf } from './sweep'
import { SweepPicture } from './SweepPicture'

/** The decisions as a builder makes them, one after another. */
const WAY = [
  { value: 'closing', label: '1 Closing', of: ['intake_closes'] },
  { value: 'opening', label: '2 Exhaust opening', of: ['exhaust_opens'] },
  { value: 'overlap', label: '3 Overlap', of: ['intake_opens', 'exhaust_closes'] },
  { value: 'lift', label: '4 Lift', of: ['intake_lift', 'exhaust_lift'] },
]

/** One decision of the cam at a time, each with its picture, what is proposed and why. */
export function Decisions({ decisions }: { decisions: readonly DecisionReport[] }) {
  const [chosen, setChosen] = useState('closing')
  const own = WAY.find(({ value }) => value === chosen)?.of ?? []
  const shown = decisions.filter(({ decision }) => own.includes(decision))
  return (
    <>
      <Segmented
        size="small"
        aria-label="Decision"
        options={WAY.map(({ value, label }) => ({ value, label }))}
        value={chosen}
        onChange={setChosen}
      />
      {shown.map((decision) => (
        <One key={decision.decision} decision={decision} />
      ))}
    </>
  )
}

/** Where a decision stands at this moment: as the strip, a field or undo has moved it. */
function useLive(decision: DecisionReport): number {
  const name = decision.decision
  const live = useSessionPart((state) => {
    const handle = state.answer?.handles.find(({ event }) => event === name)
    if (handle) return handle.quoted_deg
    const lift = state.answer?.analysis.candidates[0]?.lift
    if (lift?.state !== 'done') return undefined
    if (name === 'intake_lift') return lift.intake.lobe_mm
    return name === 'exhaust_lift' ? lift.exhaust.lobe_mm : undefined
  })
  return live ?? decision.now
}

function One({ decision }: { decision: DecisionReport }) {
  const session = useSession()
  const candidate = useCandidate()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const system = useSessionPart((state) => state.system)
  const live = useLive(decision)
  const now = nearestTo(live, decision.value)
  const [at, setAt] = useState<number>()
  const looked = at ?? now
  const edit = (place: number) =>
    candidate ? editOf(decision, place, { candidate: candidate.id, index, system }) : undefined
  const drag = (place: number) => {
    setAt(place)
    const wanted = edit(place)
    if (wanted) session.preview(wanted)
  }
  const drop = (place: number) => {
    setAt(undefined)
    const wanted = edit(place)
    if (wanted) session.edit(wanted)
  }
  const proposed = nearestTo(decision.proposed, decision.value)
  const [low, high] = decision.range_shown
  return (
    <section className="decision" aria-label={decision.title}>
      <p className="decision-says">
        <b>{decision.title}</b> {decision.now_shown[system]}; proposed{' '}
        <b>{decision.proposed_shown[system]}</b>
        {low && high && low[system] !== high[system]
          ? `, ${low[system]} to ${high[system]} is as good`
          : ''}{' '}
        {proposed === now ? null : (
          <button type="button" className="small" onClick={() => drop(proposed)}>
            Take it
          </button>
        )}
      </p>
      <SweepPicture
        decision={decision}
        system={system}
        live={live}
        at={looked}
        onAt={setAt}
        onDrag={drag}
        onDrop={drop}
      />
      <p className="quiet">
        {decision.why[system]}.
        {decision.broken
          .filter((limit) => !limit.is_broken_now)
          .map((limit) => ` Hatched: ${limit.title.toLowerCase()} does not hold.`)
          .join('')}
      </p>
      <Reserves decision={decision} at={looked} system={system} />
    </section>
  )
}
