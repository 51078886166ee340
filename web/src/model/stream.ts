import { PAGE_HEADERS, Refusal, refusalOf } from '../api/client'

/** The whole lines of `text` and what is left of the last one. Pure. */
export function linesOf(text: string): {
  readonly lines: readonly string[]
  readonly rest: string
} {
  const parts = text.split('\n')
  return { lines: parts.slice(0, -1).filter((line) => line !== ''), rest: parts.at(-1) ?? '' }
}

/** Where work is asked for. */
export type JobPath =
  | '/api/choose'
  | '/api/search'
  | '/api/score'
  | '/api/diagnosis'
  | '/api/curve'
  | '/api/control'
  | '/api/sensitivity'
  | '/api/calibrate'
  | '/api/motion'
  | '/api/phasing'
  | '/api/tolerance'
  | '/api/weigh'

/** A line says how far the work is. */
export interface JobLine {
  readonly state: string
}

const UNDER_WAY = ['waiting', 'running']

/** Whether a line is not the last of its work. Pure. */
export function isUnderWay({ state }: JobLine): boolean {
  return UNDER_WAY.includes(state)
}

/**
 * Asks for work that takes a while and hears of every line as it comes; the last one is the answer. Aborting ends the work.
 * Throws a {@link Refusal} when it was refused, or broke off before its end.
 */
export async function readLines<Line extends JobLine>(
  path: JobPath,
  request: object,
  signal: AbortSignal,
  onLine: (line: Line) => void,
): Promise<Line> {
  let last: Line | undefined
  try {
    last = await lastLine(path, request, signal, onLine)
  } catch (error) {
    // The network's own words say nothing to anybody.
    throw error instanceof TypeError ? new Refusal(refusalOf(undefined)) : error
  }
  if (last === undefined || isUnderWay(last)) throw new Refusal(refusalOf(undefined))
  return last
}

async function lastLine<Line extends JobLine>(
  path: JobPath,
  request: object,
  signal: AbortSignal,
  onLine: (line: Line) => void,
): Promise<Line | undefined> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...PAGE_HEADERS },
    body: JSON.stringify(request),
    signal,
  })
  if (!response.ok || !response.body)
    throw new Refusal(refusalOf(await response.json().catch(() => undefined)))
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let [rest, last]: [string, Line | undefined] = ['', undefined]
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const found = linesOf(rest + part.value)
    rest = found.rest
    for (const line of found.lines) {
      last = JSON.parse(line) as Line
      onLine(last)
    }
  }
  return last
}
