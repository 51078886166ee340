/** Commands of the palette and how they are found. Pure. */

export interface Command {
  readonly id: string
  readonly title: string
  /** What it is: "step", "field", "candidate". */
  readonly kind: string
  readonly keys?: string
  readonly run: () => void
}

/** Commands whose title has every word typed, those that begin with it first; at most so many. */
export function found(commands: readonly Command[], typed: string, most = 40): Command[] {
  const words = typed.toLowerCase().split(/\s+/).filter((word) => word !== '')
  const scored = commands.flatMap((command) => {
    const title = `${command.title} ${command.kind}`.toLowerCase()
    if (!words.every((word) => title.includes(word))) return []
    return [{ command, score: words[0] !== undefined && title.startsWith(words[0]) ? 0 : 1 }]
  })
  return scored.sort((a, b) => a.score - b.score).slice(0, most).map(({ command }) => command)
}
