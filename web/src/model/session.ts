import { Refusal } from '../api/client'
import type { BuildSummary, Edit, UnitSystem } from '../api/client'
import type { Result } from './answers'
import { Answers } from './answers'
import { draftOf, tabStorage } from './draft'
import { begin, commit, redo, undo } from './history'
import type { History } from './history'
import { RequestLine } from './requestLine'
import { saveAsNew, saveNow } from './saving'
import type { SessionState, Typed } from './state'
import { isUnsaved } from './state'
import { Store } from './store'

/** A hand that has not moved for so long rests, ms. */
const REST = 120

const NONE_REFUSED: SessionState['refusals'] = {}

/**
 * The work on one build in one tab: document history, saving, answers and what is looked at, everything in one line so
 * that what was done first is done first. Screens only read it.
 */
export class Session {
  private readonly store: Store
  private readonly answers: Answers
  private readonly queue: RequestLine<Result | undefined>
  /** Set while something is dragged and the hand has not rested yet. */
  private resting: ReturnType<typeof setTimeout> | undefined

  constructor(
    summary: BuildSummary,
    document: string,
    candidate: string | undefined,
    system: UnitSystem,
  ) {
    this.store = new Store(firstState(summary, document, candidate, system))
    this.answers = new Answers(this.store)
    this.queue = new RequestLine(
      (result) => {
        if (result) this.answers.taken(result)
      },
      (error) => this.store.refused(error),
    )
    this.settle()
  }

  readonly subscribe = (listener: () => void): (() => void) => this.store.subscribe(listener)

  readonly read = (): SessionState => this.store.read()

  /**
   * Shows what edits would do together; the document stays until {@link edit} is called. Figures follow when the hand rests: those
   * that change faster cannot be read.
   */
  preview(...edits: Edit[]): void {
    this.queue.ask(() => this.answers.preview(edits, false), true)
    this.moveOn()
    this.resting = setTimeout(() => {
      this.queue.ask(() => this.answers.preview(edits, true), true)
    }, REST)
  }

  /** What was dragged is not looked at any more. */
  private moveOn(): void {
    clearTimeout(this.resting)
  }

  /** Makes an edit: one step of undo. */
  edit(edit: Edit): void {
    this.edits([edit])
  }

  /** Makes several edits as one step of undo, all or none; then looks at `candidate`, if it is named. */
  edits(edits: Edit[], candidate?: string): void {
    this.moveOn()
    this.queue.ask(() => this.answers.settled(edits, candidate))
  }

  /**
   * Makes the edit that was typed into the field `key`. Resolves when the answer has come, whatever it is: the field then
   * shows the document again, or what was refused beside its fault.
   */
  type(key: string, typed: Typed, edit: Edit): Promise<void> {
    this.moveOn()
    return new Promise((answered) => {
      this.queue.ask(async () => {
        try {
          this.answers.taken(await this.answers.settled([edit]))
          this.forget(key)
        } catch (error) {
          const faults = error instanceof Refusal ? (error.problem.faults ?? []) : []
          const refusals = { ...this.read().refusals, [key]: { typed, faults } }
          this.store.set({ refusals, trouble: undefined })
          if (faults.length === 0) this.store.refused(error)
        } finally {
          answered()
        }
        return undefined
      })
    })
  }

  /** Takes back what was typed into a field and refused. */
  forget(key: string): void {
    const { [key]: gone, ...rest } = this.read().refusals
    if (gone) this.store.set({ refusals: rest })
  }

  /** Puts a whole document in the place of the present one: one step of undo. */
  replace(document: string): void {
    this.walk((history) => commit(history, document))
  }

  undo(): void {
    this.walk(undo)
  }

  redo(): void {
    this.walk(redo)
  }

  /** Undo and redo wait in line like edits: what was typed last is what is undone first. */
  private walk(step: (history: History) => History): void {
    this.moveOn()
    this.queue.ask(() => {
      this.store.set({ history: step(this.read().history), faults: [], refusals: NONE_REFUSED })
      return this.answers.settled([])
    })
  }

  /** Lays a candidate beside the one in view, or none. */
  layBeside(beside: string | undefined): void {
    this.store.set({ beside })
    this.settle()
  }

  /** Asks for the fields of a session at the bench, as long as somebody looks at it. */
  lookAt(atBench: string | undefined): void {
    if (atBench === this.read().atBench) return
    this.store.set({ atBench })
    if (atBench !== undefined) this.settle()
  }

  /** Asks for the fields of a pull, as long as somebody looks at it. */
  lookAtPull(pull: string | undefined): void {
    if (pull === this.read().pull) return
    this.store.set({ pull })
    if (pull !== undefined) this.settle()
  }

  /** Asks for the fields of an entry of the service log, as long as somebody looks at it. */
  lookAtEntry(entry: string | undefined): void {
    if (entry === this.read().entry) return
    this.store.set({ entry })
    if (entry !== undefined) this.settle()
  }

  /** Asks for every candidate side by side, as long as somebody looks. */
  wantTable(table: boolean): void {
    if (table === this.read().table) return
    this.store.set({ table })
    if (table) this.settle()
  }

  /** Asks for the lines of the assembly, as long as somebody looks. */
  wantAssembly(assembling: boolean): void {
    if (assembling === this.read().assembling) return
    this.store.set({ assembling })
    if (assembling) this.settle()
  }

  /** Brings the dragged document with every preview, as long as something follows it. */
  follow(followed: boolean): void {
    if (followed !== this.read().followed) this.store.set({ followed })
  }

  choose(candidate: string): void {
    this.answers.forgetReadings()
    this.store.set({ candidate, moved: [], faults: [], refusals: NONE_REFUSED })
    this.settle()
  }

  useUnits(system: UnitSystem): void {
    this.store.set({ system, moved: [] })
    this.settle()
  }

  /** Asks for the whole answer to the document as it stands. */
  settle(): void {
    this.moveOn()
    this.queue.ask(() => this.answers.settled([]), true)
  }

  /** Saves the document as it is once every edit on its way has been taken. */
  save(): void {
    this.queue.ask(() => saveNow(this.store))
  }

  /** Takes `document` as the work on top of the newest revision and saves it: the end of a merge. */
  saveOver(newest: BuildSummary, document: string): void {
    this.moveOn()
    this.queue.ask(async () => {
      const history = commit(this.read().history, document)
      const refusals = NONE_REFUSED
      this.store.set({ summary: newest, history, staleAgainst: undefined, refusals })
      await saveNow(this.store)
      return this.answers.settled([])
    })
  }

  /**
   * Takes what another device saved: the newest revision in the place of the one here. Steps of undo before it are gone, so that none
   * of them takes another's readings away. A tab with edits of its own stays as it is. Resolves when the answer to it is on screen.
   */
  adopt(newest: BuildSummary, document: string): Promise<void> {
    return new Promise((resolve, reject) => {
      this.queue.ask(async () => {
        try {
          const isNewer = !isUnsaved(this.read()) && newest.revision > this.read().summary.revision
          if (isNewer)
            this.store.set({
              summary: newest,
              savedDocument: document,
              history: begin(document),
              refusals: NONE_REFUSED,
            })
          if (this.read().answer?.document !== this.read().history.present)
            this.answers.taken(await this.answers.settled([]))
          resolve()
        } catch (error) {
          reject(error instanceof Error ? error : new Error(String(error)))
        }
        return undefined
      })
    })
  }

  /** Keeps this tab's document as a build of its own; its number when it was kept. */
  saveAsNew(): Promise<number | undefined> {
    return saveAsNew(this.store)
  }

  /** The note about recovered edits was read. */
  acknowledge(): void {
    this.store.set({ recovered: false })
  }
}

/** A session as it opens: edits of this tab that were not saved are taken up again. */
function firstState(
  summary: BuildSummary,
  document: string,
  candidate: string | undefined,
  system: UnitSystem,
): SessionState {
  const draft = draftOf(tabStorage(), summary.id)
  const recovered = draft !== undefined && draft.document !== document
  const saved = begin(document)
  return {
    // A draft from an older revision is saved against that one, and merged.
    summary: recovered ? { ...summary, revision: draft.base } : summary,
    savedDocument: document,
    history: recovered ? commit(saved, draft.document) : saved,
    recovered,
    candidate,
    beside: undefined,
    atBench: undefined,
    pull: undefined,
    entry: undefined,
    assembling: false,
    table: false,
    followed: false,
    dragged: false,
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
}
