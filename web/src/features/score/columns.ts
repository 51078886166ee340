import type { ScoreColumn, ScoreReport } from '../../api/client'

/** What a board may rank, as the document calls it, and its heading. */
export const SCORED = [
  ['average_torque', 'Average torque'],
  ['peak_torque', 'Peak torque'],
  ['average_power', 'Average power'],
  ['peak_power', 'Peak power'],
  ['under_curve', 'Under the curve'],
  ['idle_vacuum', 'Idle vacuum'],
  ['control', 'Reserve of control'],
  ['margin', 'Least margin'],
  ['life', 'Spring interval'],
  ['guide_pressure', 'Pressure on the guide'],
  ['money', 'Parts'],
] as const

/** A row of the document's table of columns: column, weight, from, to. */
export type ColumnRow = readonly [string, string, string, string]

/** The columns of a board as rows of the document; `asked` are those it has, with the speeds they are over. Pure. */
export function rowsOf(
  columns: readonly ScoreColumn[],
  asked: readonly (readonly string[])[],
): ColumnRow[] {
  return columns.map(({ id, weight }, place) => {
    const own = asked[place]
    const isOwn = own?.[0]?.replaceAll(' ', '_') === id
    return [id, String(weight), isOwn ? (own[2] ?? '') : '', isOwn ? (own[3] ?? '') : '']
  })
}

/** Rows with another weight in one of them. Pure. */
export function weighed(rows: readonly ColumnRow[], place: number, weight: string): ColumnRow[] {
  return rows.map((row, i) => (i === place ? [row[0], weight, row[2], row[3]] : row))
}

/** Places of a board's rows, the best first; who ties keeps the order of the document. Pure. */
export function inOrder(report: ScoreReport): number[] {
  return report.rows
    .map((_, place) => place)
    .sort((a, b) => (report.rows[a]?.place ?? 0) - (report.rows[b]?.place ?? 0) || a - b)
}
