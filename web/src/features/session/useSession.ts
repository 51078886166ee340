import { createContext, useContext, useSyncExternalStore } from 'react'
import type { Session, SessionState } from './session'

export const SessionContext = createContext<Session | undefined>(undefined)

/** The session of this tab. */
export function useSession(): Session {
  const session = useContext(SessionContext)
  if (!session) throw new Error('no session around this component')
  return session
}

/** Its state; the component renders again with every change. */
export function useSessionState(): SessionState {
  const session = useSession()
  return useSyncExternalStore(session.subscribe, session.read)
}
