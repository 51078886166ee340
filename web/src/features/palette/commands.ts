/** Commands of the palette and how they are found. Pure. */

export interface Command {
  readonly id: string
  readonly title: string
  /** What it is: "step", "field", "candidate". */
  readonly kind: string
  readonly keys?: string
  readonly run: () => void
}

/** American spellings of the words shown, so that both are found. */
const SPELLINGS: readonly (readonly [string, string])[] = [
  ['centerline', 'centreline'], ['center', 'centre'], ['carburetor', 'carburettor'], ['gasoline', 'petrol'], ['aluminum', 'aluminium'],
  ['millimeter', 'millimetre'], ['liter', 'litre'], ['meter', 'metre'], ['fiber', 'fibre'], ['mold', 'mould'],
]

/** `text` in one spelling. */
function british(text: string): string {
  return SPELLINGS.reduce((changed, [american, word]) => changed.replaceAll(american, word), text.toLowerCase())
}

/** Commands whose title has every word typed, those that begin with it first; at most so many. */
export function found(commands: readonly Command[], typed: string, most = 40): Command[] {
  const words = british(typed).split(/\s+/).filter((word) => word !== '')
  const scored = commands.flatMap((command) => {
    const title = british(`${command.title} ${command.kind}`)
    if (!words.every((word) => title.includes(word))) return []
    return [{ command, score: words[0] !== undefined && title.startsWith(words[0]) ? 0 : 1 }]
  })
  return scored.sort((a, b) => a.score - b.score).slice(0, most).map(({ command }) => command)
}
