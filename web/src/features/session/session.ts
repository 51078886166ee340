import { answered, client, Refusal } from '../../api/client'
import type { BuildSummary, Edit, Fault, PartName, UnitSystem, WorkbenchAnswer } from '../../api/client'
import { completed } from './completed'
import { draftOf, keepDraft, tabStorage } from './draft'
import { begin, commit, redo, undo } from './history'
import type { History } from './history'
import { RequestLine } from './requestLine'
import type { SessionState, Typed } from './state'
import { share } from './share'
import { moved } from './moved'
import type { Moved } from './moved'

/** What follows a drag at every step: what is drawn. */
const DRAWN: PartName[] = ['timing', 'strip', 'clearance']
/** What is read beside it; while a drag goes on, every {@link CALM} milliseconds. */
const READ: PartName[] = [...DRAWN, 'lift', 'spring', 'control', 'limits']
/** The whole answer, when it rests. */
const FULL: PartName[] = [...READ, 'lobe', 'train', 'drawing', 'remedies']
/** Figures that change faster than this cannot be read. */
const CALM = 200

const NONE_REFUSED: SessionState['refusals'] = {}
const NOTHING: readonly Moved[] = []
const NO_FAULTS: readonly Fault[] = []

type Listener = () => void

interface Result {
  readonly answer: WorkbenchAnswer
  /** The candidate the answer is about. */
  readonly candidate: string | undefined
  /** The document the request began from; an answer to another one is out of date. */
  readonly asked: string
  readonly step: boolean
}

/** The work on one build in one tab. Holds state and talks to the server; screens only read it. */
export class Session {
  private state: SessionState
  private readonly listeners = new Set<Listener>()
  private readonly queue: RequestLine<Result | undefined>
  private readingsBefore: WorkbenchAnswer['readings'] = []
  /** When a preview last asked for what is read. */
  private readAt = 0

  constructor(summary: BuildSummary, document: string, candidate: string | undefined, system: UnitSystem) {
    const draft = draftOf(tabStorage(), summary.id)
    const recovered = draft !== undefined && draft.document !== document
    this.state = {
      // A draft from an older revision is saved against that one, and merged.
      summary: recovered ? { ...summary, revision: draft.base } : summary,
      savedDocument: document,
      history: recovered ? commit(begin(document), draft.document) : begin(document),
      recovered,
      candidate,
      beside: undefined,
      table: false,
      system,
      answer: undefined,
      moved: [],
      faults: [],
      refusals: NONE_REFUSED,
      trouble: undefined,
      staleAgainst: undefined,
      gone: false,
      draftKept: tabStorage() !== undefined,
    }
    this.queue = new RequestLine(
      (result) => { if (result) this.taken(result) },
      (error) => { this.refused(error) },
    )
    this.settle()
  }

  readonly subscribe = (listener: Listener): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  readonly read = (): SessionState => this.state

  /** Shows what an edit would do; the document stays until {@link edit} is called. */
  preview(edit: Edit): void {
    this.queue.ask(() => {
      const calm = performance.now() - this.readAt < CALM
      if (!calm) this.readAt = performance.now()
      return this.work([edit], calm ? DRAWN : READ, false)
    }, true)
  }

  /** Makes an edit: one step of undo. */
  edit(edit: Edit): void {
    this.edits([edit])
  }

  /**
   * Makes the edit that was typed into the field `key`. Resolves when the answer has come, whatever it is: the field then
   * shows the document again, or what was refused beside its fault.
   */
  type(key: string, typed: Typed, edit: Edit): Promise<void> {
    return new Promise((answered) => {
      this.queue.ask(async () => {
        try {
          this.taken(await this.work([edit], FULL, true))
          this.forget(key)
        } catch (error) {
          const faults = error instanceof Refusal ? error.problem.faults ?? [] : []
          this.set({ refusals: { ...this.state.refusals, [key]: { typed, faults } }, trouble: undefined })
          if (faults.length === 0) this.refused(error)
        } finally {
          answered()
        }
        return undefined
      })
    })
  }

  /** Takes back what was typed into a field and refused. */
  forget(key: string): void {
    const { [key]: gone, ...rest } = this.state.refusals
    if (gone) this.set({ refusals: rest })
  }

  /** Makes several edits as one step of undo, all or none; then looks at `candidate`, if it is named. */
  edits(edits: Edit[], candidate?: string): void {
    this.queue.ask(() => this.work(edits, FULL, true, candidate))
  }

  /** Puts a whole document in the place of the present one: one step of undo. */
  replace(document: string): void {
    this.queue.ask(() => {
      this.set({ history: commit(this.state.history, document), faults: [], refusals: NONE_REFUSED })
      return this.work([], FULL, true)
    })
  }

  /** Lays a candidate beside the one in view, or none. */
  layBeside(beside: string | undefined): void {
    this.set({ beside })
    this.settle()
  }

  /** Asks for every candidate side by side, as long as somebody looks. */
  wantTable(table: boolean): void {
    if (table === this.state.table) return
    this.set({ table })
    if (table) this.settle()
  }

  undo(): void {
    this.walk(undo)
  }

  redo(): void {
    this.walk(redo)
  }

  choose(candidate: string): void {
    this.readingsBefore = []
    this.set({ candidate, moved: [], faults: [], refusals: NONE_REFUSED })
    this.settle()
  }

  useUnits(system: UnitSystem): void {
    this.set({ system, moved: [] })
    this.settle()
  }

  /** Saves the document as it is once every edit on its way has been taken. */
  save(): void {
    this.queue.ask(() => this.saveNow())
  }

  /** Takes `document` as the work on top of the newest revision and saves it: the end of a merge. */
  saveOver(newest: BuildSummary, document: string): void {
    this.queue.ask(async () => {
      this.set({ summary: newest, history: commit(this.state.history, document), staleAgainst: undefined, refusals: NONE_REFUSED })
      await this.saveNow()
      return this.work([], FULL, true)
    })
  }

  private async saveNow(): Promise<undefined> {
    const { summary, history, savedDocument } = this.state
    const document = history.present
    if (document === savedDocument) return
    try {
      const saved = await answered(
        client.PUT('/api/builds/{id}', {
          params: { path: { id: summary.id } },
          body: { base_revision: summary.revision, document },
        }),
      )
      this.set({ summary: saved, savedDocument: document, trouble: undefined, staleAgainst: undefined, recovered: false })
    } catch (error) {
      const newest = error instanceof Refusal ? error.problem.newest_revision : undefined
      if (typeof newest === 'number') this.set({ staleAgainst: newest })
      else if (error instanceof Refusal && error.problem.status === 404) this.set({ gone: true })
      else this.refused(error)
    }
  }

  /** Keeps this tab's document as a build of its own; its number when it was kept. */
  async saveAsNew(): Promise<number | undefined> {
    const { history, summary } = this.state
    const document = history.present
    try {
      const made = await answered(client.POST('/api/builds', { body: { document } }))
      keepDraft(tabStorage(), summary.id, undefined)
      this.set({ summary: made, savedDocument: document, trouble: undefined, staleAgainst: undefined, recovered: false, gone: false })
      return made.id
    } catch (error) {
      this.refused(error)
      return undefined
    }
  }

  /** Undo and redo wait in line like edits: what was typed last is what is undone first. */
  private walk(step: (history: History) => History): void {
    this.queue.ask(() => {
      this.set({ history: step(this.state.history), faults: [], refusals: NONE_REFUSED })
      return this.work([], FULL, true)
    })
  }

  /** Asks for the whole answer to the document as it stands. */
  settle(): void {
    this.queue.ask(() => this.work([], FULL, true), true)
  }

  private async work(edits: Edit[], parts: PartName[], settle: boolean, view?: string): Promise<Result> {
    const { history, system, beside, table } = this.state
    const candidate = view ?? this.state.candidate
    const asked = history.present
    const body = {
      document: asked, edits, candidate: candidate ?? null, parts, system, form: settle,
      beside: settle ? beside ?? null : null, table: settle && table,
    }
    const answer = await answered(client.POST('/api/workbench', { body }))
    return { answer, asked, candidate, step: settle && edits.length > 0 }
  }

  private taken({ answer, asked, candidate, step }: Result): void {
    const { history, system, answer: last } = this.state
    if (asked !== history.present) return
    const next = step ? commit(history, answer.document) : history
    const settled = answer.fields !== undefined && answer.fields !== null
    const whole = last ? completed(last, answer) : answer
    if (candidate !== this.state.candidate) this.readingsBefore = []
    const changes = settled ? moved(this.readingsBefore, whole.readings, system) : NOTHING
    this.set({
      history: next,
      candidate,
      // What did not change keeps its identity, so that only what changed is drawn again.
      answer: share(last, whole),
      moved: changes.length > 0 ? changes : this.state.moved,
      faults: NO_FAULTS,
      trouble: undefined,
    })
    if (settled) this.readingsBefore = answer.readings
  }

  private refused(error: unknown): void {
    // Whatever fails is said, and never stops what comes after it.
    if (!(error instanceof Refusal)) {
      this.set({ trouble: `Something went wrong in this page: ${error instanceof Error ? error.message : String(error)}. The document is as it was.` })
      return
    }
    const faults = error.problem.faults ?? []
    if (faults.length > 0) this.set({ faults, trouble: undefined })
    else this.set({ trouble: error.problem.detail })
  }

  /** The note about recovered edits was read. */
  acknowledge(): void {
    this.set({ recovered: false })
  }

  private set(change: Partial<SessionState>): void {
    const before = this.state
    this.state = { ...before, ...change }
    const { history, savedDocument, summary } = this.state
    if (history !== before.history || savedDocument !== before.savedDocument) {
      const unsaved = history.present !== savedDocument
      this.state = { ...this.state, draftKept: keepDraft(tabStorage(), summary.id, unsaved ? { base: summary.revision, document: history.present } : undefined) }
    }
    for (const listener of this.listeners) listener()
  }
}
