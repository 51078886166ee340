import { useEffect } from 'react'
import type { Session } from '../features/session/session'
import type { StepName } from './steps'
import { STEPS } from './steps'

export interface Keys {
  readonly find: () => void
  readonly help: () => void
  readonly step: (step: StepName) => void
  /** Makes the strip tall or slim. */
  readonly strip: () => void
}

/** Keys that work wherever the focus is, and a warning before work is left behind. */
export function useShortcuts(session: Session | undefined, keys: Keys): void {
  useEffect(() => {
    if (!session) return undefined
    const onKey = (event: KeyboardEvent) => {
      const action = actionOf(session, keys, event)
      if (!action) return
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
  }, [session, keys])
}

function actionOf(session: Session, keys: Keys, event: KeyboardEvent): (() => void) | undefined {
  const key = event.key.toLowerCase()
  const field = textField(event.target)
  if (event.ctrlKey || event.metaKey) {
    if (key === 'k') return keys.find
    if (key === 's') return () => { session.save() }
    // A text being typed has its own undo.
    if (field !== undefined && field.value !== field.defaultValue) return undefined
    if (key === 'y' || (key === 'z' && event.shiftKey)) return () => { session.redo() }
    if (key === 'z') return () => { session.undo() }
    return undefined
  }
  if (event.altKey) return altAction(session, keys, event)
  if (field !== undefined || event.target instanceof HTMLSelectElement) return undefined
  if (key === '/') return keys.find
  if (key === '?') return keys.help
  return undefined
}

/** Keys of the steps in their order: those of the row of digits and the one after it. */
const ALT_STEPS = ['Digit1', 'Digit2', 'Digit3', 'Digit4', 'Digit5', 'Digit6', 'Digit7', 'Digit8', 'Digit9', 'Digit0', 'Minus']

function altAction(session: Session, keys: Keys, event: KeyboardEvent): (() => void) | undefined {
  const place = ALT_STEPS.indexOf(event.code)
  if (place >= 0) {
    const step = STEPS[place]
    return step ? () => { keys.step(step.name) } : undefined
  }
  if (event.code === 'KeyS') return keys.strip
  const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0
  if (by === 0) return undefined
  return () => {
    const answer = session.read().answer
    const next = answer?.candidates[answer.candidate_index + by]
    if (next) session.choose(next.id)
  }
}

function textField(target: EventTarget | null): HTMLInputElement | HTMLTextAreaElement | undefined {
  if (target instanceof HTMLTextAreaElement) return target
  return target instanceof HTMLInputElement && ['text', 'search'].includes(target.type) ? target : undefined
}
