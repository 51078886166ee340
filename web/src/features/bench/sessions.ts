import type { Edit, FormField, SessionReport } from '../../api/client'
import { today as dayOf } from './lines'

/** The reading that is asked for. */
export type Next = NonNullable<SessionReport['next']>

/** What can be measured, in the order of the work. */
export const KINDS = [
  { value: 'head', label: 'Head: seats and guides' },
  { value: 'flow', label: 'Flow bench' },
  { value: 'volumes', label: 'Chambers and ports by burette' },
  { value: 'decks', label: 'Decks' },
  { value: 'stems', label: 'Stem heights' },
  { value: 'cam_card', label: 'Cam card that came' },
  { value: 'lobe_map', label: 'Lobes by caliper or dial' },
  { value: 'rocker_mass', label: 'Rocker mass' },
  { value: 'springs', label: 'Springs on the tester' },
  { value: 'installed_heights', label: 'Installed heights' },
  { value: 'degree_in', label: 'Degree-in' },
  { value: 'pushrods', label: 'Pushrods and their places' },
  { value: 'lift_check', label: 'Lift, light and real spring' },
  { value: 'valve_drop', label: 'Valve drop to the piston' },
  { value: 'clay', label: 'Clay' },
  { value: 'adjustment', label: 'Preload or lash' },
  { value: 'compression', label: 'Compression' },
  { value: 'leak_down', label: 'Leak-down' },
] as const

/** An identifier that no session has: the next number. Pure. */
export function freeId(sessions: readonly { readonly id: string }[]): string {
  const taken = new Set(sessions.map(({ id }) => id))
  let number = sessions.length + 1
  while (taken.has(`s${String(number)}`)) number += 1
  return `s${String(number)}`
}

/** The edit that begins a session. Pure. */
export function begun(kind: string, id: string, candidate: string, today: Date): Edit {
  return {
    begin_session: { session: id, kind, candidate, date: dayOf(today), by: '' },
  }
}

/** The columns of the next reading that are read. Pure. */
export function asked(next: Next): string[] {
  return next.cells.filter(({ given }) => !given).map(({ label }) => label)
}

/** The edit that takes a reading: what stands already and what was read, in the order of the columns. Pure. */
export function taken(session: string, next: Next, read: readonly string[]): Edit {
  const left = [...read]
  const cells = next.cells.map(({ given }) => given ?? left.shift() ?? '')
  return { take_reading: { session, table: next.table, cells } }
}

/** The edit that takes the last reading back, while it is still the last one. Pure. */
export function takenBack(session: string, { table, read }: Next): Edit {
  return { take_back: { session, table, of: read } }
}

/** A reading in words: what it is of, and what was read. Pure. */
export function wordsOf({ says }: Next, read: readonly string[]): string {
  return `${says}: ${read.join(', ')}`
}

/** What is asked next when these readings are on their way already; each stands for one that is asked. Pure. */
export function stillAsked(ahead: readonly Next[], onTheirWay: readonly Edit[]): Next | undefined {
  const left = [...ahead]
  for (const edit of onTheirWay) {
    if (!('take_reading' in edit)) continue
    const { table, cells } = edit.take_reading
    const isIt = (next: Next) =>
      next.table === table && next.cells.every(({ given }, at) => !given || given === cells[at])
    const place = left.findIndex(isIt)
    if (place >= 0) left.splice(place, 1)
  }
  return left[0]
}

/** Whether two readings of an instrument are one: within three of the last digit it shows. Pure. */
export function readsAlike(one: string, other: string): boolean {
  const digits = /\.(\d+)/.exec(one)?.[1]?.length ?? 0
  return Math.abs(parseFloat(one) - parseFloat(other)) <= 3.01 * 10 ** -digits
}

/** The edits that take a suggestion over: the value, where it is from, and how far it may be off. Pure. */
export function takenOver(one: SessionReport['suggests'][number], candidate: string): Edit[] {
  const { field, to, rows, lobe, doubt } = one
  if (lobe) return [{ import_lobe: { candidate, side: lobe.side, text: lobe.text } }]
  const source: Edit = { source: { field, source: 'measured' } }
  if (rows) return [{ rows: { field, rows } }, source]
  const put: Edit = { set: { field, text: to } }
  return doubt ? [put, source, { tolerance: { field, plus_minus: doubt } }] : [put, source]
}

/** The fields of a session in two lists: what describes it, and what was read. Pure. */
export function partsOfSession(own: readonly FormField[]): {
  readonly setUp: FormField[]
  readonly read: FormField[]
} {
  const isOwn = ({ field }: FormField) => !/\.(kind|candidate)$/.test(field)
  return {
    setUp: own.filter((field) => !field.table && isOwn(field)),
    read: own.filter((field) => field.table),
  }
}

/** What readings came to, in a word. */
export const VERDICTS: Record<SessionReport['verdict'], string> = {
  agrees: 'agrees',
  differs: 'differs',
  questioned: 'look again',
  unclear: '',
}

/** A session's name with its valve. Pure. */
export function titleOf({ title, cylinder, side }: SessionReport): string {
  return side ? `${title}, ${String(cylinder)} ${side}` : title
}
