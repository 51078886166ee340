import { useEffect } from 'react'
import type { Session } from '../features/session/session'

/** Ctrl+S, Ctrl+Z, Ctrl+Shift+Z and Ctrl+Y wherever the focus is, and a warning before work is left behind. */
export function useShortcuts(session: Session | undefined): void {
  useEffect(() => {
    if (!session) return undefined
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey)) return
      const action = actionOf(session, event.key.toLowerCase(), event.shiftKey)
      // A text being typed has its own undo.
      const typing = event.target instanceof HTMLInputElement && event.target.type === 'text' && event.target.value !== event.target.defaultValue
      if (!action || (typing && event.key.toLowerCase() !== 's')) return
      event.preventDefault()
      action()
    }
    const onLeave = (event: BeforeUnloadEvent) => {
      const state = session.read()
      if (state.history.present !== state.savedDocument) event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('beforeunload', onLeave)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('beforeunload', onLeave)
    }
  }, [session])
}

function actionOf(session: Session, key: string, shift: boolean): (() => void) | undefined {
  if (key === 's') return () => { session.save() }
  if (key === 'y' || (key === 'z' && shift)) return () => { session.redo() }
  if (key === 'z') return () => { session.undo() }
  return undefined
}
