import { answered, askedAside, client } from '../api/client'
import type { Edit, Fault, PartName, WorkbenchAnswer } from '../api/client'
import { completed } from './completed'
import { commit } from './history'
import type { Moved } from './moved'
import { moved } from './moved'
import { share } from './share'
import type { Store } from './store'

/** What follows a drag at every step: what is drawn. */
const DRAWN: PartName[] = ['timing', 'strip', 'clearance', 'following']
/** What is read beside it, when the hand rests. */
const READ: PartName[] = [...DRAWN, 'lift', 'spring', 'control', 'limits']
/** The whole answer, when it rests. */
const FULL: PartName[] = [
  ...READ,
  'at_speed',
  'lobe',
  'train',
  'bench',
  'sessions',
  'drawing',
  'remedies',
]
const NOTHING: readonly Moved[] = []
const NO_FAULTS: readonly Fault[] = []

export interface Result {
  readonly answer: WorkbenchAnswer
  /** The candidate the answer is about. */
  readonly candidate: string | undefined
  /** Whether the request itself turned to that candidate. */
  readonly turned: boolean
  /** The document the request began from; an answer to another one is out of date. */
  readonly asked: string
  readonly step: boolean
}

/** Asks the server what the document comes to, and takes its answers into the state. */
export class Answers {
  private readonly store: Store
  private readingsBefore: WorkbenchAnswer['readings'] = []

  constructor(store: Store) {
    this.store = store
  }

  /** The whole answer to the document with `edits` made; then of `view`, if it is named. */
  settled(edits: Edit[], view?: string): Promise<Result> {
    const { assembling } = this.store.read()
    return this.work(edits, assembling ? [...FULL, 'assembly'] : FULL, true, view)
  }

  /** What an edit would do, as much as a drag can show; with the figures, when somebody can read them. */
  preview(edits: Edit[], isRead: boolean): Promise<Result> {
    return this.work(edits, isRead ? READ : DRAWN, false)
  }

  /** What moves next is another candidate's, and no change of this one. */
  forgetReadings(): void {
    this.readingsBefore = []
  }

  taken({ answer, asked, candidate, turned, step }: Result): void {
    const { history, system, answer: last, candidate: viewed, moved: before } = this.store.read()
    if (asked !== history.present) return
    if (!turned && candidate !== viewed) {
      // Another candidate was chosen meanwhile: what was edited counts, what was asked of the one before does not.
      if (step) this.store.set({ history: commit(history, answer.document) })
      return
    }
    const settled = answer.fields !== undefined && answer.fields !== null
    const whole = last ? completed(last, answer) : answer
    if (candidate !== viewed) this.readingsBefore = []
    const changes = settled ? moved(this.readingsBefore, whole.readings, system) : NOTHING
    this.store.set({
      history: step ? commit(history, answer.document) : history,
      candidate,
      // What did not change keeps its identity, so that only what changed is drawn again.
      answer: share(last, whole),
      moved: changes.length > 0 ? changes : before,
      dragged: !settled,
      faults: NO_FAULTS,
      trouble: undefined,
    })
    if (settled) this.readingsBefore = answer.readings
  }

  private async work(
    edits: Edit[],
    parts: PartName[],
    settle: boolean,
    view?: string,
  ): Promise<Result> {
    const {
      history,
      system,
      beside,
      table,
      followed,
      atBench,
      pull,
      entry,
      candidate: viewed,
    } = this.store.read()
    const candidate = view ?? viewed
    const asked = history.present
    const body = {
      document: asked,
      edits,
      candidate: candidate ?? null,
      parts,
      system,
      form: settle,
      session: settle ? (atBench ?? null) : null,
      pull: settle ? (pull ?? null) : null,
      entry: settle ? (entry ?? null) : null,
      beside: settle ? (beside ?? null) : null,
      table: settle && table,
      preview: !settle,
      follow: !settle && followed,
    }
    const answer = await (settle
      ? answered(client.POST('/api/workbench', { body }))
      : askedAside(body))
    return {
      answer,
      asked,
      candidate,
      turned: view !== undefined,
      step: settle && edits.length > 0,
    }
  }
}
