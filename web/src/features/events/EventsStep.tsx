import { plain, readAngle, tenths } from '../../model/figures'
import { memo } from 'react'
import type { CardNumber, EventHandle } from '../../api/client'
import { Needs } from '../fields/Needs'
import { TextField } from '../fields/TextField'
import { Term } from '../glossary/Term'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import './events.css'

/** The four events and the card numbers: each editable, each moving the other. */
export function EventsStep() {
  const candidate = useCandidate()
  const handles = useSessionPart((state) => state.answer?.handles)
  if (!candidate) return null
  const timing = candidate.timing
  if (timing.state !== 'done') {
    return timing.state === 'failed' ? (
      <Needs what="The events are known" reason={timing.reason} needs={timing.needs} />
    ) : (
      <p className="quiet">Working…</p>
    )
  }
  const of = (event: EventHandle['event']) => handles?.find((h) => h.event === event)
  return (
    <div className="events">
      <div className="event-grid">
        {(['intake_closes', 'exhaust_opens', 'intake_opens', 'exhaust_closes'] as const).map(
          (event) => {
            const handle = of(event)
            return handle ? (
              <EventField
                key={`${candidate.id}.${event}`}
                handle={handle}
                candidate={candidate.id}
              />
            ) : null
          },
        )}
      </div>
      <div className="card-grid">
        <CardField
          key={`${candidate.id}.intake_duration`}
          candidate={candidate.id}
          number="intake_duration"
          label="Intake duration"
          value={tenths(timing.intake.duration_050_deg)}
        />
        <CardField
          key={`${candidate.id}.exhaust_duration`}
          candidate={candidate.id}
          number="exhaust_duration"
          label="Exhaust duration"
          value={tenths(timing.exhaust.duration_050_deg)}
        />
        <CardField
          key={`${candidate.id}.lobe_separation`}
          candidate={candidate.id}
          number="lobe_separation"
          label="Lobe separation"
          value={tenths(timing.lobe_separation_deg)}
        />
        <CardField
          key={`${candidate.id}.intake_centreline`}
          candidate={candidate.id}
          number="intake_centreline"
          label="Intake centreline"
          value={tenths(timing.intake.centreline_deg)}
        />
      </div>
      <dl className="facts">
        <Fact word="Overlap" name="Overlap at .050" value={readAngle(timing.overlap_050_deg)} />
        <Fact
          word="Seat timing"
          name="Overlap at the seat"
          value={readAngle(timing.overlap_006_deg)}
        />
        <Fact word="Advance" name="Advance" value={readAngle(timing.advance_deg)} />
        <Fact name="Exhaust centreline" value={readAngle(timing.exhaust.centreline_deg)} />
        <Fact
          word="Dynamic compression"
          name="Compression"
          value={`${ratio(candidate.engine.state === 'done' ? candidate.engine.compression_ratio : null)} static, ${ratio(timing.trapped_compression_ratio)} dynamic`}
        />
        <Asymmetry intake={timing.intake} exhaust={timing.exhaust} />
      </dl>
      <p className="quiet">
        All at .050 in of lobe lift. Drag the handles under the strip, use the arrow keys on them,
        or type.
      </p>
    </div>
  )
}

const EventField = memo(function EventField({
  handle,
  candidate,
}: {
  handle: EventHandle
  candidate: string
}) {
  const session = useSession()
  const key = `${candidate}.${handle.event}`
  const refused = useSessionPart((state) => state.refusals[key])
  const side = handle.event.startsWith('intake') ? 'intake' : 'exhaust'
  return (
    <TextField
      className={`event ${side}`}
      label={handle.label}
      ariaLabel={`${handle.label}, degrees ${handle.reference}`}
      value={tenths(handle.quoted_deg)}
      suffix={<span className="quiet">{handle.reference}</span>}
      refused={refused}
      onForget={() => session.forget(key)}
      onCommit={(text) =>
        session.type(key, text, { type_event: { candidate, event: handle.event, text } })
      }
    />
  )
})

interface CardFieldProps {
  readonly candidate: string
  readonly number: CardNumber
  readonly label: string
  readonly value: string
}

const CardField = memo(function CardField({ candidate, number, label, value }: CardFieldProps) {
  const session = useSession()
  const key = `${candidate}.${number}`
  const refused = useSessionPart((state) => state.refusals[key])
  return (
    <TextField
      label={label}
      value={value}
      suffix={<span className="quiet">deg</span>}
      refused={refused}
      onForget={() => session.forget(key)}
      onCommit={(text) => session.type(key, text, { type_card: { candidate, number, text } })}
    />
  )
})

function Fact({ name, value, word }: { name: string; value: string; word?: string }) {
  return (
    <div>
      <dt>{word === undefined ? name : <Term word={word}>{name}</Term>}</dt>
      <dd>{value}</dd>
    </div>
  )
}

type Centres = { centreline_deg: number; centre_of_lift_deg: number }

/** An asymmetric lobe has its full lift away from the centre of its events. */
function Asymmetry({ intake, exhaust }: { intake: Centres; exhaust: Centres }) {
  const sides = [
    ['intake', intake],
    ['exhaust', exhaust],
  ] as const
  const apart = sides.filter(
    ([, side]) => Math.abs(side.centreline_deg - side.centre_of_lift_deg) > 0.05,
  )
  return apart.map(([name, side]) => (
    <Fact key={name} name={`Full lift, ${name}`} value={readAngle(side.centre_of_lift_deg)} />
  ))
}

function ratio(value: number | null | undefined): string {
  return value === null || value === undefined ? 'unknown' : plain(value, 2)
}
