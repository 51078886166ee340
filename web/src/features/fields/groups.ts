import type { FormField } from '../../api/client'

export interface Group {
  readonly title: string
  readonly fields: readonly { readonly field: FormField; readonly label: string }[]
}

/** Fields under any of `prefixes`, grouped by the object they stand in, in the document's order. Pure. */
export function grouped(fields: readonly FormField[], prefixes: readonly string[]): Group[] {
  const groups = new Map<string, { field: FormField; label: string }[]>()
  for (const field of fields) {
    const prefix = prefixes.find((p) => field.field.startsWith(p))
    if (prefix === undefined) continue
    const inside = field.field.slice(prefix.length)
    const dot = inside.lastIndexOf('.')
    const title = dot < 0 ? '' : inside.slice(0, dot)
    const rows = groups.get(title) ?? []
    rows.push({ field, label: labelOf(field, inside.slice(dot + 1)) })
    groups.set(title, rows)
  }
  return [...groups].map(([title, rows]) => ({ title: spoken(title), fields: rows }))
}

/** A row of a table says which row and column it is. */
function labelOf(field: FormField, key: string): string {
  const places = [...key.matchAll(/\[(\d+)\]/g)].map((match) => Number(match[1]) + 1)
  return places.length > 0 ? `${field.label} ${places.join('.')}` : field.label
}

function spoken(title: string): string {
  const words = title.replaceAll('_', ' ').replace(/\[(\d+)\]/g, (_, place: string) => ` ${Number(place) + 1}`).split('.').join(', ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}
