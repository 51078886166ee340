import { useEffect, useState, useSyncExternalStore } from 'react'
import type { Edit } from '../api/client'
import { answered, client } from '../api/client'
import type { Outcome, Shelf, Waiting } from './outbox'
import { Outbox } from './outbox'
import type { Session } from './session'
import { useSession } from './useSession'

interface Sent {
  readonly items: readonly Waiting[]
  /** Whether the server did not answer when it was last asked. */
  readonly isAway: boolean
  readonly put: (edits: readonly Edit[], says: string) => Promise<Outcome>
  readonly drop: (key: string) => void
}

/** Readings of the build in view that go to the shop's server as they are taken, and wait here while it is away. */
export function useOutbox(): Sent {
  const session = useSession()
  const [outbox] = useState(() => outboxOf(session))
  const items = useSyncExternalStore(outbox.subscribe, outbox.read)
  const isAway = useSyncExternalStore(outbox.subscribe, outbox.isAway)
  useEffect(() => {
    const flush = () => void outbox.flush()
    flush()
    window.addEventListener('online', flush)
    return () => {
      window.removeEventListener('online', flush)
      outbox.rest()
    }
  }, [outbox])
  return {
    items,
    isAway,
    put: (edits, says) => outbox.put(edits, session.read().system, says, Date.now()),
    drop: (key) => outbox.drop(key),
  }
}

/** A server that has not answered by then is away, ms. */
const PATIENCE = 8_000

function outboxOf(session: Session): Outbox {
  const { id } = session.read().summary
  const send = ({ key, edits, system }: Waiting) =>
    answered(
      client.POST('/api/builds/{id}/readings', {
        params: { path: { id } },
        body: { key, edits: [...edits], system },
        // A network that is lost without a word would hold everything up.
        signal: AbortSignal.timeout(PATIENCE),
      }),
    )
  return new Outbox(id, deviceShelf(), send, (opened) =>
    session.adopt(opened.summary, opened.document),
  )
}

function deviceShelf(): Shelf | undefined {
  try {
    return window.localStorage
  } catch {
    return undefined
  }
}
