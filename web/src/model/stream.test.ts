import { expect, test, vi } from 'vitest'
import { Refusal } from '../api/client'
import { linesOf, readLines } from './stream'

interface Line {
  readonly state: string
  readonly at?: number
}

/** A server that sends these pieces, each when it likes, and then ends or breaks off. */
function sends(pieces: readonly string[], status = 200, breaks = false): void {
  const bytes = new TextEncoder()
  const body = new ReadableStream<Uint8Array<ArrayBuffer>>({
    start(out) {
      for (const piece of pieces) out.enqueue(bytes.encode(piece))
      if (breaks) out.error(new TypeError('network error'))
      else out.close()
    },
  })
  vi.spyOn(globalThis, 'fetch').mockResolvedValue(new Response(body, { status }))
}

async function heard(): Promise<{ lines: Line[]; end: Line | Refusal }> {
  const lines: Line[] = []
  const end = await readLines<Line>('/api/curve', {}, new AbortController().signal, (line) => {
    lines.push(line)
  }).catch((error: unknown) => {
    if (error instanceof Refusal) return error
    throw error
  })
  return { lines, end }
}

test('a line that has not all come waits for its rest', () => {
  expect(linesOf('{"a":1}\n{"b"')).toEqual({ lines: ['{"a":1}'], rest: '{"b"' })
  expect(linesOf('{"b":2}\n')).toEqual({ lines: ['{"b":2}'], rest: '' })
  expect(linesOf('')).toEqual({ lines: [], rest: '' })
})

test('lines are heard as they come, however they are cut, and the last is the answer', async () => {
  sends([
    '{"state":"waiting"}\n{"sta',
    'te":"running","at":1}\n',
    '{"state":"running","at":2}\n{"state":"done"}\n',
  ])
  const { lines, end } = await heard()
  expect(lines.map((line) => line.at ?? line.state)).toEqual(['waiting', 1, 2, 'done'])
  expect(end).toEqual({ state: 'done' })
})

test('failed and stopped are ends too', async () => {
  for (const state of ['failed', 'stopped']) {
    sends([`{"state":"running"}\n{"state":"${state}"}\n`])
    expect((await heard()).end).toEqual({ state })
  }
})

test('work that breaks off on its way is no result', async () => {
  for (const breaks of [false, true]) {
    sends(['{"state":"running","at":1}\n'], 200, breaks)
    const { end } = await heard()
    expect(end).toBeInstanceOf(Refusal)
    expect((end as Refusal).message).toContain('does not answer')
  }
  sends([])
  expect((await heard()).end).toBeInstanceOf(Refusal)
})

test('a refusal says what the server says', async () => {
  sends(
    [JSON.stringify({ title: 'refused values', detail: 'bore: needs a length', status: 422 })],
    422,
  )
  expect(((await heard()).end as Refusal).problem.detail).toBe('bore: needs a length')
})
