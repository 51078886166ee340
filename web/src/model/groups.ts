import type { FormField } from '../api/client'

/** Groups of fields as a form shows them, and which field of a document belongs to which. Pure. */

export type PictureName =
  'deck' | 'pocket-intake' | 'pocket-exhaust' | 'flow-intake' | 'flow-exhaust' | 'firing'

export interface Group {
  readonly title: string
  /** Paths, or beginnings of paths that end in a dot; `@` stands for the candidate in view. */
  readonly fields: readonly string[]
  readonly picture?: PictureName
  /** Closed for good, where the step shows the same otherwise, or only while nothing in it is given. */
  readonly folded?: 'until asked' | 'while empty'
}

/** Fields that carry the format itself; nobody edits them by hand. */
const HIDDEN = [
  'format',
  'version',
  'bench',
  'assembly',
  'pulls',
  'service',
  'valve_motion',
  '@.id',
]

/** Paths of one owner, from their keys: `list('engine.', 'bore stroke')`. */
export function list(prefix: string, keys: string): string[] {
  return keys.split(' ').map((key) => `${prefix}${key}`)
}

function written(pattern: string, index: number): string {
  return pattern.replace('@', `candidates[${index}]`)
}

function matches(field: string, pattern: string, index: number): boolean {
  const path = written(pattern, index)
  return path.endsWith('.')
    ? field.startsWith(path)
    : field === path || field.startsWith(`${path}[`)
}

/** The fields of one group, in the order of its patterns. */
export function fieldsOf(group: Group, fields: readonly FormField[], index: number): FormField[] {
  return group.fields.flatMap((pattern) => fields.filter((f) => matches(f.field, pattern, index)))
}

/**
 * The fields of the entry `id` of a list at the top of the document, without its identifier. None while an answer still tells of
 * another entry: its fields would be typed into by whoever looks at this one. Pure.
 */
export function fieldsOfEntry(
  fields: readonly FormField[],
  list: 'bench' | 'pulls' | 'service',
  id: string,
): FormField[] {
  const identifier = new RegExp(`^${list}\\[\\d+\\]\\.id$`)
  const named = fields.find(({ field, text }) => text === id && identifier.test(field))
  const own = named?.field.replace(/id$/, '')
  return own === undefined
    ? []
    : fields.filter(({ field }) => field !== named?.field && field.startsWith(own))
}

/** Whether a group holds `field`, a path inside it, or the whole object it stands for. */
export function holds(group: Group, field: string, index: number): 'it' | 'inside' | undefined {
  if (group.fields.some((pattern) => matches(field, pattern, index))) return 'it'
  const within = (pattern: string) => written(pattern, index).startsWith(`${field}.`)
  return group.fields.some(within) ? 'inside' : undefined
}

/** Whether a form asks for it: it has a meaning beside its neighbours, or was given all the same. */
export function isWanted(field: FormField): boolean {
  return field.applies || field.given
}

export function isHidden(field: string, index: number): boolean {
  return HIDDEN.some((pattern) => matches(field, pattern, index))
}

/** How many fields of some groups are given, and how many are assumed. */
export function tallyOf(
  groups: readonly Group[],
  fields: readonly FormField[],
  index: number,
): { assumed: number; given: number } {
  const own = groups.flatMap((group) => fieldsOf(group, fields, index))
  return {
    assumed: own.filter((f) => f.applies && f.source === 'assumed').length,
    given: own.filter((f) => f.given).length,
  }
}
