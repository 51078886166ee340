import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, expect, test, vi } from 'vitest'
import type { JobLine } from './stream'
import { readLines } from './stream'
import { useJob } from './useJob'

vi.mock('./stream', async (own) => ({ ...(await own<object>()), readLines: vi.fn() }))

afterEach(cleanup)

const REQUEST = { document: '{}' }

function View({ name }: { readonly name: string }) {
  const job = useJob<JobLine>('/api/weigh', ['job', REQUEST], REQUEST)
  return (
    <p>
      {name} {job.data?.state ?? 'nothing'}
    </p>
  )
}

test('work goes on for the view that takes the place of the one that asked for it', async () => {
  let asked = 0
  vi.mocked(readLines).mockImplementation((_path, _request, signal, onLine) => {
    asked += 1
    if (asked > 1) return Promise.resolve({ state: 'done' })
    onLine({ state: 'waiting' })
    // The first is under way until it is stopped.
    return new Promise((_, reject) => {
      signal.addEventListener('abort', () => reject(new DOMException('stopped', 'AbortError')))
    })
  })
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const page = (name: string) => (
    <QueryClientProvider client={queries}>
      <View key={name} name={name} />
    </QueryClientProvider>
  )
  const { rerender } = render(page('one'))
  expect(await screen.findByText('one waiting')).toBeDefined()
  rerender(page('two'))
  expect(await screen.findByText('two done')).toBeDefined()
  expect(asked).toBe(2)
  // What is done is not asked for again.
  rerender(page('three'))
  expect(await screen.findByText('three done')).toBeDefined()
  expect(asked).toBe(2)
})

test('work that was left before its end is asked for when somebody comes back; what failed is not', async () => {
  let asked = 0
  vi.mocked(readLines).mockImplementation((_path, _request, signal, onLine) => {
    asked += 1
    if (asked === 2) return Promise.reject(new Error('broken off'))
    onLine({ state: 'running' })
    return new Promise((_, reject) => {
      signal.addEventListener('abort', () => reject(new DOMException('stopped', 'AbortError')))
    })
  })
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  const page = (view: ReactNode) => (
    <QueryClientProvider client={queries}>{view}</QueryClientProvider>
  )
  const { rerender } = render(page(<View name="one" />))
  expect(await screen.findByText('one running')).toBeDefined()
  rerender(page(null))
  await new Promise((done) => setTimeout(done, 20))
  rerender(page(<View name="back" />))
  await vi.waitFor(() => expect(asked).toBe(2))
  await new Promise((done) => setTimeout(done, 20))
  expect(asked).toBe(2)
})
