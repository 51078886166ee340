import type { AssemblyLine, AssemblyReport } from '../../api/client'

/** Where a line stands, in a word and its tone. */
export const WORDS: Record<AssemblyLine['state'], { text: string; tone: string }> = {
  done: { text: 'done', tone: 'ok' },
  open: { text: 'can be done', tone: '' },
  waits: { text: 'waits', tone: 'quiet' },
  out_of_order: { text: 'signed before what it waits for', tone: 'tight' },
}

/** Lines by part of the work, in their order. Pure. */
export function phasesOf(
  lines: readonly AssemblyLine[],
): { readonly phase: string; readonly lines: AssemblyLine[] }[] {
  const phases: { phase: string; lines: AssemblyLine[] }[] = []
  for (const line of lines) {
    const last = phases.at(-1)
    if (last?.phase === line.phase) last.lines.push(line)
    else phases.push({ phase: line.phase, lines: [line] })
  }
  return phases
}

/** How far it is. Pure. */
export function doneOf({ done, lines }: AssemblyReport): string {
  return `${String(done)} of ${String(lines.length)} lines done`
}

/** A day as the document writes it. Pure. */
export function today(at: Date): string {
  return now(at).slice(0, 10)
}

/** A time as a line is signed with it, by the clock of whoever signs. Pure. */
export function now(at: Date): string {
  const two = (number: number) => String(number).padStart(2, '0')
  const day = [at.getFullYear(), two(at.getMonth() + 1), two(at.getDate())].join('-')
  return `${day} ${two(at.getHours())}:${two(at.getMinutes())}`
}
