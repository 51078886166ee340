import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, expect, test, vi } from 'vitest'
import type { JobLine } from './stream'
import { useJob } from './useJob'

afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

const REQUEST = { document: '{}' }

function View({ name }: { readonly name: string }) {
  const job = useJob<JobLine>('/api/weigh', ['job', REQUEST], REQUEST)
  return (
    <p>
      {name} {job.data?.state ?? 'nothing'}
    </p>
  )
}

/** A server that answers each time by the next of these states; one that is under way ends when it is stopped. */
function answers(...states: readonly string[]) {
  let asked = 0
  vi.spyOn(globalThis, 'fetch').mockImplementation((_path, init) => {
    const state = states[asked] ?? 'done'
    asked += 1
    if (state === 'broken') return Promise.reject(new TypeError('network error'))
    const body = new ReadableStream<Uint8Array<ArrayBuffer>>({
      start(out) {
        out.enqueue(new TextEncoder().encode(`{"state":"${state}"}\n`))
        if (state === 'done') out.close()
        init?.signal?.addEventListener('abort', () => {
          out.error(new DOMException('stopped', 'AbortError'))
        })
      },
    })
    return Promise.resolve(new Response(body))
  })
  return () => asked
}

function pages() {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  return (view: ReactNode) => <QueryClientProvider client={queries}>{view}</QueryClientProvider>
}

test('work goes on for the view that takes the place of the one that asked for it', async () => {
  const asked = answers('waiting')
  const page = pages()
  const { rerender } = render(page(<View key="one" name="one" />))
  expect(await screen.findByText('one waiting')).toBeDefined()
  rerender(page(<View key="two" name="two" />))
  expect(await screen.findByText('two done')).toBeDefined()
  // What is done is not asked for again.
  rerender(page(<View key="three" name="three" />))
  expect(await screen.findByText('three done')).toBeDefined()
  expect(asked()).toBe(2)
})

test('work that was left before its end is asked for when somebody comes back; what broke off is not', async () => {
  const asked = answers('running', 'broken')
  const page = pages()
  const { rerender } = render(page(<View name="one" />))
  expect(await screen.findByText('one running')).toBeDefined()
  rerender(page(null))
  await new Promise((done) => setTimeout(done, 20))
  rerender(page(<View name="back" />))
  await vi.waitFor(() => {
    expect(asked()).toBe(2)
  })
  await new Promise((done) => setTimeout(done, 20))
  expect(asked()).toBe(2)
})
