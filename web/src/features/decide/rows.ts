import type { Column, UnitSystem, Verdict } from '../../api/client'

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
