/** What a dropped file is, by its name and its text. Pure. */

/** What a table of numbers may be taken as. */
export const TABLES = [
  { as: 'intake lobe', label: 'Measured intake lobe' },
  { as: 'exhaust lobe', label: 'Measured exhaust lobe' },
  { as: 'intake flow', label: 'Intake flow table' },
  { as: 'exhaust flow', label: 'Exhaust flow table' },
  { as: 'pull', label: 'Pull on the dyno' },
] as const

export type TableKind = (typeof TABLES)[number]['as']

export type Dropped =
  | { readonly kind: 'archive' }
  | { readonly kind: 'build' }
  | { readonly kind: 'parts' }
  /** Columns of numbers: what they are is for people to say, with a guess. */
  | { readonly kind: 'table'; readonly rows: number; readonly guess: TableKind }
  | { readonly kind: 'unknown' }

/** `text` is empty for what is no text. */
export function whatIs(name: string, text: string): Dropped {
  if (/\.zip$/i.test(name)) return { kind: 'archive' }
  if (/^\s*[{[]/.test(text)) return { kind: 'build' }
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '')
  if (/(^|[,;\t"])part_kind($|[,;\t"])/.test(lines[0] ?? '')) return { kind: 'parts' }
  const rows = lines.flatMap((line) => {
    const numbers = numbersOf(line)
    return numbers.length >= 2 ? [numbers] : []
  })
  if (rows.length < 2) return { kind: 'unknown' }
  return { kind: 'table', rows: rows.length, guess: guessOf(`${name} ${lines[0] ?? ''}`, rows) }
}

function numbersOf(line: string): number[] {
  return line
    .split(/[,;\s]/)
    .filter((cell) => /^[-+]?(\d+\.?\d*|\.\d+)$/.test(cell))
    .map(Number)
}

function guessOf(words: string, rows: readonly (readonly number[])[]): TableKind {
  const said = words.toLowerCase()
  const side = said.includes('exh') ? 'exhaust' : 'intake'
  if (/rpm|torque|power|lb.?ft|n ?m\b/.test(said)) return 'pull'
  if (/cfm|flow|l\/s/.test(said)) return `${side} flow`
  if (/cam|lobe|deg/.test(said) || rows.length > 60) return `${side} lobe`
  return Math.max(...rows.map(([first = 0]) => first)) > 900 ? 'pull' : `${side} flow`
}

/** Where a table of this kind goes in the document of a candidate. */
export function fieldOf(kind: TableKind, candidate: number): string {
  const [side = 'intake', what] = kind.split(' ')
  if (what === 'lobe') return `candidates[${candidate}].cam.${side}.profile`
  return what === 'flow' ? `engine.${side}.flow` : 'pull.points'
}
