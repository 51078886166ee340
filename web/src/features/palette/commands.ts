/** Commands of the palette and how they are found. Pure. */

export interface Command {
  readonly id: string
  readonly title: string
  /** What it is: "step", "field", "candidate". */
  readonly kind: string
  /** More words it is found by, behind those of its title. */
  readonly also?: string
  /** Only explains: it stands behind what can be gone to. */
  readonly explains?: true
  readonly keys?: string
  readonly run: () => void
}

/** American spellings of the words shown, so that both are found. */
const SPELLINGS: readonly (readonly [string, string])[] = [
  ['centerline', 'centreline'],
  ['center', 'centre'],
  ['carburetor', 'carburettor'],
  ['gasoline', 'petrol'],
  ['aluminum', 'aluminium'],
  ['millimeter', 'millimetre'],
  ['liter', 'litre'],
  ['meter', 'metre'],
  ['fiber', 'fibre'],
  ['mold', 'mould'],
]

/** `text` in one spelling. */
function british(text: string): string {
  return SPELLINGS.reduce(
    (changed, [american, word]) => changed.replaceAll(american, word),
    text.toLowerCase(),
  )
}

/** Commands that have every word typed, those whose title begins with it first, those found by other words last; at most so many. */
export function found(commands: readonly Command[], typed: string, most = 40): Command[] {
  const words = british(typed)
    .split(/\s+/)
    .filter((word) => word !== '')
  const scored = commands.flatMap((command) => {
    const title = british(command.title)
    const known = `${title} ${british(command.kind)}`
    const late = command.explains ? 4 : 0
    const has = (text: string) => words.every((word) => text.includes(word))
    if (words[0] === undefined || (has(known) && title.startsWith(words[0])))
      return [{ command, score: late }]
    if (has(title)) return [{ command, score: late + 1 }]
    if (has(known)) return [{ command, score: late + 2 }]
    return has(`${known} ${british(command.also ?? '')}`) ? [{ command, score: late + 3 }] : []
  })
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, most)
    .map(({ command }) => command)
}
