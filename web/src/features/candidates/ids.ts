const LETTERS = 'abcdefghijklmnopqrstuvwxyz'.split('')

/** The first letter no candidate has as its identifier, then numbers. Pure. */
export function freeId(taken: readonly string[]): string {
  const letter = LETTERS.find((id) => !taken.includes(id))
  if (letter !== undefined) return letter
  let number = 1
  while (taken.includes(`c${number}`)) number += 1
  return `c${number}`
}

/** A short name for a copy of the candidate in view, by what makes it another. Pure. */
export function copyName(viewed: string, what: string): string {
  const name = `${viewed.split(' ')[0] ?? viewed}: ${what}`
  return name.length <= 60 ? name : `${name.slice(0, 59)}…`
}

/** The same of one made by trying a remedy. Pure. */
export function remedyName(viewed: string, label: string, to: string): string {
  return copyName(viewed, `${label.toLowerCase()} ${to}`)
}

/** Where a field of the candidate at `from` stands for the one at `to`; engine and target go into its own changes. Pure. */
export function pathFor(field: string, from: number, to: number): string {
  if (/^(engine|target)\./.test(field)) return `candidates[${to}].changes.${field}`
  return field.replace(`candidates[${from}].`, `candidates[${to}].`)
}
