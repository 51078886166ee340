// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useCalm } from './useCalm'

beforeEach(() => {
  vi.useFakeTimers()
})
afterEach(() => {
  vi.useRealTimers()
})

test('a value that keeps changing is passed on every so often, the last one always', () => {
  const { result, rerender } = renderHook(({ value }) => useCalm(value, 200), {
    initialProps: { value: 0 },
  })
  const seen = new Set<number>()
  for (let value = 1; value <= 20; value += 1) {
    rerender({ value })
    act(() => {
      vi.advanceTimersByTime(50)
    })
    seen.add(result.current)
  }
  act(() => {
    vi.advanceTimersByTime(200)
  })
  expect(result.current).toBe(20)
  expect(seen.size).toBeGreaterThan(2)
  expect(seen.size).toBeLessThan(9)
})
