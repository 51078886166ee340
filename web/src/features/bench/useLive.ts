import { useEffect, useState } from 'react'
import type { LiveLine } from '../../api/client'
import { PAGE_HEADERS } from '../../api/client'
import { linesOf } from '../../model/stream'

/** Waits before a broken line is listened to again, ms. */
const AGAIN = 1000

const AWAY: LiveLine = {
  state: 'away',
  shown: null,
  text: null,
  rests: 0,
  rested: null,
  rubbish: 0,
  says: 'the server does not answer',
  dyno: null,
}

/** What an instrument reads now, as long as this is on screen; nothing without a name. */
export function useLive(name: string | undefined): LiveLine | undefined {
  const [heard, setHeard] = useState<{ name: string; line: LiveLine }>()
  useEffect(() => {
    if (name === undefined) return undefined
    const over = new AbortController()
    const tell = (line: LiveLine) => setHeard({ name, line })
    void listen(name, over.signal, tell)
    return () => over.abort()
  }, [name])
  return heard && heard.name === name ? heard.line : undefined
}

async function listen(
  name: string,
  over: AbortSignal,
  tell: (line: LiveLine) => void,
): Promise<void> {
  const isOver = () => over.aborted
  while (!isOver()) {
    try {
      await hear(name, over, tell)
    } catch {
      // Aborted, or the server is away: the one ends, the other is told and tried again.
    }
    if (isOver()) return
    tell(AWAY)
    await new Promise((done) => setTimeout(done, AGAIN))
  }
}

async function hear(name: string, signal: AbortSignal, tell: (line: LiveLine) => void) {
  const path = `/api/instruments/${encodeURIComponent(name)}/live`
  const response = await fetch(path, { headers: PAGE_HEADERS, signal })
  if (!response.ok || !response.body) return
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    const found = linesOf(rest + part.value)
    rest = found.rest
    const last = found.lines.at(-1)
    if (last !== undefined) tell(JSON.parse(last) as LiveLine)
  }
}
