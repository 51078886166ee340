import { useEffect } from 'react'
import type { SessionReport } from '../../api/client'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'

const NONE: readonly SessionReport[] = []

/** The sessions of the candidate in view, the one that is looked at, and the way to another; the last where none was chosen. */
export function useSessions(named?: string) {
  const session = useSession()
  const sessions = useCandidate()?.sessions ?? NONE
  const atBench = useSessionPart((state) => state.atBench)
  const chosen = named ?? atBench
  const shown = sessions.find(({ id }) => id === chosen) ?? sessions.at(-1)
  const last = sessions.at(-1)?.id
  useEffect(() => {
    // One that was just begun is looked at before it is there: nothing takes its place.
    if (named !== undefined) session.lookAt(named)
    else if (atBench === undefined) session.lookAt(last)
  }, [session, named, atBench, last])
  return { sessions, shown, look: (to: string) => session.lookAt(to) }
}
