import { Refusal } from '../api/client'
import { keepDraft, tabStorage } from './draft'
import type { SessionState } from './state'
import { isUnsaved } from './state'

/** The state of one session: read by screens, set by the session alone. What is not saved is kept over a reload. */
export class Store {
  private state: SessionState
  private readonly listeners = new Set<() => void>()

  constructor(first: SessionState) {
    this.state = first
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  readonly read = (): SessionState => this.state

  set(change: Partial<SessionState>): void {
    const before = this.state
    this.state = { ...before, ...change }
    const { history, savedDocument, summary } = this.state
    if (history !== before.history || savedDocument !== before.savedDocument) {
      const draft = isUnsaved(this.state)
        ? { base: summary.revision, document: history.present }
        : undefined
      this.state = { ...this.state, draftKept: keepDraft(tabStorage(), summary.id, draft) }
    }
    for (const listener of this.listeners) listener()
  }

  /** Whatever fails is said, and never stops what comes after it. */
  refused(error: unknown): void {
    if (!(error instanceof Refusal)) {
      const reason = error instanceof Error ? error.message : String(error)
      this.set({
        trouble: `Something went wrong in this page: ${reason}. The document is as it was.`,
      })
      return
    }
    const faults = error.problem.faults ?? []
    if (faults.length > 0) this.set({ faults, trouble: undefined })
    else this.set({ trouble: error.problem.detail })
  }
}
