import type { Column, UnitSystem, Verdict } from '../../api/client'
import { marginsOf, RANK } from '../margins/order'

export interface Row {
  readonly id: string
  readonly label: string
  readonly cells: readonly { readonly text: string; readonly verdict: Verdict | undefined }[]
  readonly differs: boolean
}

/** Readings of all candidates as rows; a reading some candidate lacks is unknown there. Pure. */
export function rowsOf(columns: readonly Column[], system: UnitSystem): Row[] {
  const labels = new Map(
    columns.flatMap((column) => column.readings.map((r) => [r.id, r.label] as const)),
  )
  return [...labels].map(([id, label]) => {
    const cells = columns.map((column) => ({
      text: column.readings.find((r) => r.id === id)?.shown[system] ?? 'unknown',
      verdict: column.limits.find((l) => `${l.id}_${l.side ?? ''}` === id)?.verdict,
    }))
    return { id, label, cells, differs: cells.some((cell) => cell.text !== cells[0]?.text) }
  })
}

/** What bears on one concern, the margin that counts most first where none is worse. */
const THEMES = [
  { label: 'Idle', ids: ['idle_vacuum', 'idle_overlap'] },
  { label: 'Life', ids: ['wire_life', 'wire_fatigue', 'contact_stress', 'guide_pressure'] },
] as const

/** A row for each concern: of the margins that bear on it the one that is worst, with its figure. Pure. */
export function themesOf(columns: readonly Column[], system: UnitSystem): Row[] {
  return THEMES.flatMap(({ label, ids }) => {
    const cells = columns.map(({ limits }) => {
      const own = marginsOf(limits.filter(({ id }) => (ids as readonly string[]).includes(id)))
      const [worst] = [...own].sort((a, b) => RANK[a.worst.verdict] - RANK[b.worst.verdict])
      const have = worst?.worst.shown?.have[system]
      return {
        text: worst === undefined ? 'unknown' : `${worst.title} ${have ?? 'unknown'}`,
        verdict: worst?.worst.verdict,
      }
    })
    const differs = cells.some((cell) => cell.text !== cells[0]?.text)
    return cells.every(({ text }) => text === 'unknown')
      ? []
      : [{ id: label, label, cells, differs }]
  })
}

/** Candidates in the order somebody wants; new ones come last. Pure. */
export function inWantedOrder<T extends { readonly id: string }>(
  all: readonly T[],
  wanted: readonly string[],
): T[] {
  const place = ({ id }: T) => (wanted.includes(id) ? wanted.indexOf(id) : wanted.length)
  return [...all].sort((a, b) => place(a) - place(b))
}

/** The order with one candidate a place earlier. Pure. */
export function earlier(ids: readonly string[], id: string): string[] {
  const at = ids.indexOf(id)
  const before = ids[at - 1]
  return before === undefined
    ? [...ids]
    : [...ids.slice(0, at - 1), id, before, ...ids.slice(at + 1)]
}
