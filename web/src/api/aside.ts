import type { components } from './schema'

type WorkbenchAnswer = components['schemas']['WorkbenchAnswer']

/** One question on its way to the worker. */
export interface Asked {
  readonly id: number
  readonly url: string
  readonly headers: Readonly<Record<string, string>>
  readonly body: unknown
}

/** What came of it: data, the problem the server told, or neither when it did not answer. */
export interface Answered {
  readonly id: number
  readonly data?: WorkbenchAnswer
  readonly error?: unknown
}

/** Asks and reads the answer; never throws. */
export async function askWith({ id, url, headers, body }: Asked): Promise<Answered> {
  try {
    const response = await fetch(url, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
    const read = (await response.json()) as WorkbenchAnswer
    return response.ok ? { id, data: read } : { id, error: read }
  } catch {
    return { id }
  }
}

/** A worker that is asked, one answer for each question; `undefined` where the browser has none. */
export function asker(make: () => Worker): (asked: Omit<Asked, 'id'>) => Promise<Answered> {
  const waiting = new Map<number, (answer: Answered) => void>()
  let worker: Worker | undefined
  let last = 0
  const begin = () => {
    const made = make()
    made.onmessage = (event: MessageEvent<Answered>) => {
      waiting.get(event.data.id)?.(event.data)
      waiting.delete(event.data.id)
    }
    // A worker that cannot be loaded answers nobody: whoever waits hears that nothing came.
    made.onerror = () => {
      for (const [id, hear] of waiting) hear({ id })
      waiting.clear()
    }
    return made
  }
  return (asked) =>
    new Promise((hear) => {
      last += 1
      waiting.set(last, hear)
      worker ??= begin()
      worker.postMessage({ ...asked, id: last })
    })
}
