import type { Edit, FormField } from '../../api/client'
import { candidatePath, ownPath } from './labels'

/** Where a value may come from, with the letter its mark shows. */
export const SOURCES = [
  { source: 'measured', letter: 'm' },
  { source: 'card', letter: 'c' },
  { source: 'assumed', letter: 'a' },
  { source: 'unmarked', letter: '–' },
] as const

export type Source = (typeof SOURCES)[number]['source']

/** As people say it. */
export function saidOf(source: string): string {
  return source === 'unmarked' ? 'no source' : source
}

export function letterOf(source: string): string {
  return SOURCES.find((each) => each.source === source)?.letter ?? '–'
}

/** What a person wants or calls something has no source. Pure. */
export function hasSource(field: FormField): boolean {
  return !/^(target\.|limits|name$|use$|notes$|begun_from$)|\.name$/.test(field.field)
}

/** The edit that marks a field. Pure. */
export function markOf(field: FormField, source: Source): Edit {
  return { source: { field: field.field, source: source === 'unmarked' ? '' : source } }
}

/** The edits that mark a whole section: what is given and may have a source. Pure. */
export function marksOf(fields: readonly FormField[], source: Source): Edit[] {
  return fields
    .filter((field) => field.given && hasSource(field) && field.source !== source)
    .map((field) => markOf(field, source))
}

/** A value of its own for the exhaust, where both sides share one; `undefined` where they do not. Pure. */
export function ownForExhaust(field: FormField): Edit | undefined {
  const path = ownPath(field, 'exhaust')
  return path === undefined || !field.given ? undefined : { set: { field: path, text: field.text } }
}

/** What candidates share, made one candidate's own; `undefined` where it is, or cannot be. Pure. */
export function ownForCandidate(
  field: FormField,
  index: number,
  fields: readonly FormField[],
): Edit | undefined {
  const path = candidatePath(field.field, index)
  if (path === undefined || !field.given || fields.some((other) => other.field === path)) {
    return undefined
  }
  return field.table
    ? { rows: { field: path, rows: field.table.rows } }
    : { set: { field: path, text: field.text } }
}
