/** Rows of a table while they are typed. Pure. */

/** The rows with one cell changed; a cell below the last row makes a new one. */
export function withCell(
  rows: readonly (readonly string[])[],
  place: number,
  column: number,
  text: string,
  columns: number,
): string[][] {
  const all = rows.map((row) => [...row])
  while (all.length <= place) all.push(Array.from({ length: columns }, () => ''))
  const row = all[place] ?? []
  while (row.length <= column) row.push('')
  row[column] = text
  return all
}

/** The rows that say anything. */
export function filled(rows: readonly (readonly string[])[]): string[][] {
  return rows.filter((row) => row.some((cell) => cell.trim() !== '')).map((row) => [...row])
}

/** Whether a clipboard text is a table rather than a word: several lines, or columns. */
export function isPaste(text: string): boolean {
  return /[\n\t]/.test(text.trim()) || text.includes(';')
}
