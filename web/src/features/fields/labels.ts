import type { FormField } from '../../api/client'

/** Objects whose name says more than the group around them. */
const OWNERS: Readonly<Record<string, string>> = {
  pocket: 'Pocket',
  collector: 'Collector',
  opening: 'Opening',
  closing: 'Closing',
  ambient: 'Air',
  rules: 'Class',
}

/** What a field is called where it stands: its owner before it, its side after it. Pure. */
export function labelOf(field: FormField): string {
  const parts = field.field.replace(/^candidates\[\d+\]\./, '').split('.')
  const parent = parts.at(-2) ?? ''
  const owner = OWNERS[parent] ?? ''
  const label = owner === '' ? field.label : `${owner} ${inSentence(field.label)}`
  const sided = field.sided && (parent === 'intake' || parent === 'exhaust')
  return sided ? `${label}, ${parent}` : label
}

/** The label within a group: where two fields would read the same, each says its side. Pure. */
export function labelIn(field: FormField, group: readonly FormField[]): string {
  const label = labelOf(field)
  const side = field.field.split('.').find((part) => part === 'intake' || part === 'exhaust')
  const doubled = group.some((other) => other !== field && labelOf(other) === label)
  return doubled && side !== undefined ? `${label}, ${side}` : label
}

/** Words of the document that the trade says otherwise. */
const TRADE: Readonly<Record<string, string>> = { series: 'stock preload' }

/** A word of a closed list as people read it. Pure. */
export function spoken(word: string): string {
  return TRADE[word] ?? word.replaceAll('_', ' ')
}

/** Where a field of both sides would have its own value for one of them; `undefined` where it has or cannot. Pure. */
export function ownPath(field: FormField, side: 'intake' | 'exhaust'): string | undefined {
  const parts = field.field.split('.')
  const key = parts.pop() ?? ''
  const parent = parts.at(-1)
  if (!field.sided || parent === 'intake' || parent === 'exhaust') return undefined
  return [...parts, side, key].join('.')
}

/** Where a field that all candidates share would have its own value for one. Pure. */
export function candidatePath(field: string, index: number): string | undefined {
  return /^(engine|target)\./.test(field) ? `candidates[${index}].changes.${field}` : undefined
}

/** Whether two texts are the same number in the same unit, so that one of them says enough. Pure. */
export function readsAlike(one: string, other: string): boolean {
  const unit = (text: string) => text.replace(/^[-+\d./\s]+/, '')
  return (
    !one.includes('/') &&
    unit(one) === unit(other) &&
    Number.parseFloat(one) === Number.parseFloat(other)
  )
}

/** A label within a sentence: its first letter is small unless the word is written in capitals. Pure. */
export function inSentence(text: string): string {
  return /^[A-Z][A-Z]/.test(text) ? text : text.charAt(0).toLowerCase() + text.slice(1)
}
