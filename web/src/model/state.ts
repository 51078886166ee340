import type { BuildSummary, Fault, UnitSystem, WorkbenchAnswer } from '../api/client'
import type { History } from './history'
import type { Moved } from './moved'

/** Everything the screens of one opened build read. */
export interface SessionState {
  /** The stored build this tab works on and the revision it began from. */
  readonly summary: BuildSummary
  /** The document as last saved, to tell whether there is anything to save. */
  readonly savedDocument: string
  readonly history: History
  readonly candidate: string | undefined
  /** Candidate laid beside the one in view on the strip and in words. */
  readonly beside: string | undefined
  /** Session at the bench that is looked at. */
  readonly atBench: string | undefined
  /** Pull that is looked at. */
  readonly pull: string | undefined
  /** Entry of the service log that is looked at. */
  readonly entry: string | undefined
  /** Whether the lines of the assembly are wanted. */
  readonly assembling: boolean
  /** Whether every candidate is wanted side by side. */
  readonly table: boolean
  /** Whether something follows the document while it is dragged. */
  readonly followed: boolean
  /** Whether the answer is of a drag under way, not of the document. */
  readonly dragged: boolean
  readonly system: UnitSystem
  /** Answer to the document on screen; changes with every preview of a drag. */
  readonly answer: WorkbenchAnswer | undefined
  /** What the last edit moved; emptied by opening, never by time: the line itself fades. */
  readonly moved: readonly Moved[]
  /** Faults of the last refused edit that was made by no field; emptied by the next edit that is taken. */
  readonly faults: readonly Fault[]
  /** What fields had typed into them and was refused, by the field's key; each ends with an edit of it that is taken. */
  readonly refusals: Readonly<Record<string, Refused>>
  /** A refusal without a field, such as a server that is away. */
  readonly trouble: string | undefined
  /** Whether the edits on screen were taken up from before a reload. */
  readonly recovered: boolean
  /** Set while a stale save waits for a decision. */
  readonly staleAgainst: number | undefined
  /** The build was removed from the store while it was open here. */
  readonly gone: boolean
  /** Whether unsaved edits would survive a reload. */
  readonly draftKept: boolean
}

/** Whether there is anything to save. Pure. */
export function isUnsaved({ history, savedDocument }: SessionState): boolean {
  return history.present !== savedDocument
}

/** The candidate that an answer is of. Pure. */
export function shownIn({ answer }: SessionState): string | undefined {
  return answer?.candidates[answer.candidate_index]?.id
}

/** Text, or rows of a table, as typed. */
export type Typed = string | readonly (readonly string[])[]

/** What was typed into a field, and why it was not taken; without faults, no answer came to it. */
export interface Refused {
  readonly typed: Typed
  readonly faults: readonly Fault[]
}
