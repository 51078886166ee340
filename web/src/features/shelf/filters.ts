import type { PartKind, ShelfPart } from '../../api/client'
import { hasWords } from '../../model/words'

/** What cams are told apart by before their figures: fields of the part, as typed. */
export const FILTERS: readonly {
  readonly key: string
  readonly label: string
  readonly kinds: readonly PartKind[]
}[] = [
  { key: 'ground_for', label: 'Ground for', kinds: ['cam'] },
  { key: 'bearing_diameter', label: 'Bearing', kinds: ['cam'] },
]

function textOf({ part }: ShelfPart, key: string): string {
  const value: unknown = part.fields[key]
  return typeof value === 'string' ? value : ''
}

/** Every value there is to choose from. Pure. */
export function valuesOf(parts: readonly ShelfPart[], key: string): string[] {
  return [...new Set(parts.map((part) => textOf(part, key)))].filter((text) => text !== '').sort()
}

/** The parts with the chosen values; an empty one chooses nothing. Pure. */
export function chosenOf(
  parts: readonly ShelfPart[],
  wanted: Readonly<Record<string, string>>,
): ShelfPart[] {
  const asked = Object.entries(wanted).filter(([, value]) => value !== '')
  return parts.filter((part) => asked.every(([key, value]) => textOf(part, key) === value))
}

/** The parts whose name, notes or figures have every word. Pure. */
export function foundIn(parts: readonly ShelfPart[], search: string): ShelfPart[] {
  return parts.filter(({ part, figures }) =>
    hasWords([part.name, part.notes ?? '', ...figures.map(({ text }) => text)].join(' '), search),
  )
}
