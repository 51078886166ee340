import { Button } from 'antd'
import { useState } from 'react'
import type { SessionReport } from '../../api/client'
import { useOutbox } from '../../model/useOutbox'
import { isUnsaved } from '../../model/state'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { KindSelect } from './KindSelect'
import { NextReading } from './NextReading'
import { Said } from './Said'
import { begun, freeId, KINDS } from './sessions'
import type { Sent } from './useTaking'
import { useSending } from './useTaking'

interface Props {
  readonly shown: SessionReport | undefined
  readonly onOpen: (session: string) => void
}

/** On a device of the network: readings are kept by the shop's server as they are taken, and wait here while it is away. */
export function SentReadings({ shown, onOpen }: Props) {
  const sent = useOutbox()
  const unsaved = useSessionPart(isUnsaved)
  if (unsaved) return <OwnEdits />
  return (
    <>
      <OnTheirWay sent={sent} />
      {shown ? <One key={shown.id} shown={shown} sent={sent} /> : null}
      <BeginOne sent={sent} onOpen={onOpen} />
    </>
  )
}

function One({ shown, sent }: { readonly shown: SessionReport; readonly sent: Sent }) {
  const taking = useSending(shown, sent)
  return (
    <>
      <NextReading taking={taking} />
      <Said shown={shown} />
      {shown.suggests.length > 0 ? (
        <p className="quiet">
          What the document would say by it is taken over at the main screen:{' '}
          {shown.suggests.map(({ label }) => label).join(', ')}.
        </p>
      ) : null}
    </>
  )
}

/** Edits of this tab would be lost under what others save: they are decided about first. */
function OwnEdits() {
  const work = useSession()
  return (
    <p role="alert">
      This page has edits that are not saved. Save them, or take them back, before readings are
      taken here.{' '}
      <Button size="large" type="primary" onClick={() => work.save()}>
        Save
      </Button>{' '}
      <Button size="large" onClick={() => work.undo()}>
        Undo
      </Button>
    </p>
  )
}

/** What waits for the server, and what it did not take. */
function OnTheirWay({ sent: { items, isAway, drop } }: { readonly sent: Sent }) {
  const waiting = items.filter(({ refused }) => refused === undefined)
  const refused = items.filter((item) => item.refused !== undefined)
  return (
    <>
      <p className={`on-their-way ${isAway ? 'away' : ''}`} role="status">
        {standing(waiting.length, isAway)}
      </p>
      {refused.map(({ key, says, refused: why }) => (
        <p key={key} className="fault" role="alert">
          Not taken: {says}. {why}{' '}
          <Button size="large" onClick={() => drop(key)}>
            Leave it out
          </Button>
        </p>
      ))}
    </>
  )
}

/** How readings stand. Pure. */
function standing(count: number, isAway: boolean): string {
  const readings = count === 1 ? '1 reading' : `${String(count)} readings`
  if (isAway)
    return `No connection: ${readings} ${count === 1 ? 'waits' : 'wait'} here, to arrive by ${count === 1 ? 'itself' : 'themselves'}. Go on.`
  return count > 0
    ? `${readings} on the way…`
    : 'Every reading is kept by the shop’s server as it is taken.'
}

function BeginOne({
  sent,
  onOpen,
}: {
  readonly sent: Sent
  readonly onOpen: (id: string) => void
}) {
  const candidate = useCandidate()
  const [kind, setKind] = useState<string>('degree_in')
  const [fault, setFault] = useState<string>()
  if (!candidate) return null
  const begin = async () => {
    const id = freeId(candidate.sessions)
    const title = KINDS.find(({ value }) => value === kind)?.label ?? kind
    const outcome = await sent.put([begun(kind, id, candidate.id, new Date())], `${title} begun`)
    setFault(typeof outcome === 'object' ? outcome.refused : undefined)
    if (outcome === 'arrived') onOpen(id)
  }
  return (
    <div className="at-engine-begin no-print">
      <KindSelect kind={kind} isLarge onKind={setKind} />
      <Button size="large" disabled={sent.isAway} onClick={() => void begin()}>
        Begin another
      </Button>
      {fault ? (
        <span className="fault" role="alert">
          {fault}
        </span>
      ) : null}
    </div>
  )
}
