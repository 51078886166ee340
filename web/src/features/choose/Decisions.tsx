import { Segmented } from 'antd'
import { useState } from 'react'
import type { DecisionReport, FieldTexts, HardwareReport } from '../../api/client'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { nearestTo } from '../charts/series'
import { Reserves } from './Reserves'
import { editsOf } from './sweep'
import { SweepPicture } from './SweepPicture'

/** The decisions as a builder makes them, one after another. */
const WAY = [
  { value: 'closing', label: '1 Closing', of: ['intake_closes'] },
  { value: 'opening', label: '2 Exhaust opening', of: ['exhaust_opens'] },
  { value: 'overlap', label: '3 Overlap', of: ['intake_opens', 'exhaust_closes'] },
  { value: 'lift', label: '4 Lift', of: ['intake_lift', 'exhaust_lift'] },
  { value: 'hardware', label: '5 Hardware', of: [] },
  { value: 'card', label: 'As a card', of: [] },
] as const
export type Way = (typeof WAY)[number]['value']
/** What is beside the cam. */
export const HARDWARE: Way = 'hardware'
/** The cam once more in the words of its card. */
const CARD: Way = 'card'

interface Props {
  readonly way: Way
  readonly onWay: (way: Way) => void
  readonly decisions: readonly DecisionReport[]
  /** The same cam by the numbers of its card. */
  readonly card: readonly DecisionReport[]
  /** Decisions beside the cam, once they were looked at. */
  readonly hardware: readonly HardwareReport[]
}

/** One decision at a time, each with its picture, what is proposed and why. */
export function Decisions({ way, onWay, decisions, card, hardware }: Props) {
  const of: readonly string[] = WAY.find(({ value }) => value === way)?.of ?? []
  const shown = way === CARD ? card : decisions.filter(({ decision }) => of.includes(decision))
  return (
    <>
      <Segmented<Way>
        size="small"
        aria-label="Decision"
        options={WAY.map(({ value, label }) => ({ value, label }))}
        value={way}
        onChange={onWay}
      />
      {shown.map((decision) => (
        <One key={decision.decision} decision={decision} fields={[]} />
      ))}
      {way === HARDWARE && hardware.length === 0 ? (
        <p className="quiet" role="status">
          Rockers, compression, runners and primaries are looked at once the cam was…
        </p>
      ) : null}
      {way === HARDWARE
        ? hardware.map(({ decision, fields }) => (
            <One key={decision.decision} decision={decision} fields={fields} />
          ))
        : null}
    </>
  )
}

/** Where a decision stands at this moment: as the strip, a field or undo has moved it. */
function useLive(decision: DecisionReport): number {
  const name = decision.decision
  const live = useSessionPart((state) => {
    const handle = state.answer?.handles.find(({ event }) => event === name)
    if (handle) return handle.quoted_deg
    const followed = state.answer?.analysis.candidates[0]?.following
    const stands =
      followed?.state === 'done'
        ? followed.stands_at.find(({ decision }) => decision === name)
        : undefined
    if (stands) return stands.at
    const lift = state.answer?.analysis.candidates[0]?.lift
    if (lift?.state !== 'done') return undefined
    if (name === 'intake_lift') return lift.intake.lobe_mm
    return name === 'exhaust_lift' ? lift.exhaust.lobe_mm : undefined
  })
  return live ?? decision.now
}

interface OneProps {
  readonly decision: DecisionReport
  /** What is written where for each value, of a decision beside the cam. */
  readonly fields: readonly FieldTexts[]
}

function One({ decision, fields }: OneProps) {
  const session = useSession()
  const candidate = useCandidate()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const system = useSessionPart((state) => state.system)
  const live = useLive(decision)
  const now = nearestTo(live, decision.value)
  // A value, since curves that come meanwhile have places of their own.
  const [at, setAt] = useState<number>()
  const lookAt = (place: number) => setAt(decision.value[place])
  const looked = at === undefined ? now : nearestTo(at, decision.value)
  const edits = (place: number) =>
    candidate ? editsOf(decision, place, { candidate: candidate.id, index, system, fields }) : []
  const drag = (place: number) => {
    lookAt(place)
    const wanted = edits(place)
    if (wanted.length > 0) session.preview(...wanted)
  }
  const drop = (place: number) => {
    setAt(undefined)
    const wanted = edits(place)
    if (wanted.length > 0) session.edits(wanted)
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
        onAt={lookAt}
        onDrag={drag}
        onDrop={drop}
        onBack={() => {
          setAt(undefined)
          session.settle()
        }}
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
