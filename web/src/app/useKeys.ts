import { useEffect } from 'react'
import { tinykeys } from 'tinykeys'
import type { Session } from '../model/session'
import { isUnsaved } from '../model/state'
import type { Action } from './actions'

/** Keys of the actions, wherever the focus is. */
export function useKeys(actions: readonly Action[]): void {
  useEffect(() => {
    const bound = actions.flatMap((action) =>
      action.keys.map((key): [string, (event: KeyboardEvent) => void] => [
        key,
        (event) => {
          if (!holdsIn(action.where, event.target)) return
          event.preventDefault()
          action.run()
        },
      ]),
    )
    return tinykeys(window, Object.fromEntries(bound))
  }, [actions])
}

/** A warning before work that is not saved is left behind. */
export function useLeaveWarning(session: Session): void {
  useEffect(() => {
    const onLeave = (event: BeforeUnloadEvent) => {
      if (isUnsaved(session.read())) event.preventDefault()
    }
    window.addEventListener('beforeunload', onLeave)
    return () => window.removeEventListener('beforeunload', onLeave)
  }, [session])
}

function holdsIn(where: Action['where'], target: EventTarget | null): boolean {
  const field = textField(target)
  switch (where) {
    case 'everywhere':
      return true
    // A text being typed has its own undo.
    case 'not over typed text':
      return field === undefined || field.value === field.defaultValue
    case 'outside fields':
      return field === undefined && !(target instanceof HTMLSelectElement)
  }
}

function textField(target: EventTarget | null): HTMLInputElement | HTMLTextAreaElement | undefined {
  if (target instanceof HTMLTextAreaElement) return target
  return target instanceof HTMLInputElement && ['text', 'search'].includes(target.type)
    ? target
    : undefined
}
