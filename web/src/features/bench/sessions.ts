import type { Edit, SessionReport } from '../../api/client'

type Next = NonNullable<SessionReport['next']>

/** What can be measured, in the order of the work. */
export const KINDS = [
  { value: 'degree_in', label: 'Degree-in' },
  { value: 'lobe_map', label: 'Lobe lift by caliper' },
  { value: 'lift_check', label: 'Lift, light and real spring' },
  { value: 'springs', label: 'Springs on the tester' },
  { value: 'installed_heights', label: 'Installed heights' },
  { value: 'valve_drop', label: 'Valve drop to the piston' },
  { value: 'compression', label: 'Compression' },
  { value: 'leak_down', label: 'Leak-down' },
] as const

/** Kinds that are of one valve. */
const OF_ONE = ['degree_in', 'lift_check', 'valve_drop']

/** Whether a session of this kind is of one valve. Pure. */
export function isOfOne(kind: string): boolean {
  return OF_ONE.includes(kind)
}

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
    begin_session: { session: id, kind, candidate, date: today.toISOString().slice(0, 10), by: '' },
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

/** The edits that take a suggestion over. Pure. */
export function takenOver({ field, to }: SessionReport['suggests'][number]): Edit[] {
  return [{ set: { field, text: to } }, { source: { field, source: 'measured' } }]
}
