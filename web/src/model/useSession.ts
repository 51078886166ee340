import { createContext, useContext, useSyncExternalStore } from 'react'
import type { Session } from './session'
import type { SessionState } from './state'

export const SessionContext = createContext<Session | undefined>(undefined)

/** The session of this tab. */
export function useSession(): Session {
  const session = useContext(SessionContext)
  if (!session) throw new Error('no session around this component')
  return session
}

/**
 * A part of its state; the component renders again only when that part changes. `select` must return
 * a value or a reference out of the state, nothing made anew.
 */
export function useSessionPart<T>(select: (state: SessionState) => T): T {
  const session = useSession()
  return useSyncExternalStore(session.subscribe, () => select(session.read()))
}

/** The candidate in view as last analysed. */
export function useCandidate() {
  return useSessionPart((state) => state.answer?.analysis.candidates[0])
}

/** The scale that shows lengths of curves in the system on screen. */
export function useLengthScale() {
  return useSessionPart(({ answer, system }) => {
    const scales = answer?.analysis.scales
    return system === 'inch' ? scales?.length_inch : scales?.length_metric
  })
}
