import { cleanup } from '@testing-library/react'
import { afterEach, beforeEach, vi } from 'vitest'

beforeEach(() => {
  window.sessionStorage.clear()
})

// Files share their page: each test takes away what it put there.
afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

/** What browsers have and the page in tests lacks: nothing changes its size there. */
class NoResize implements ResizeObserver {
  observe(): void {
    /* nothing */
  }
  unobserve(): void {
    /* nothing */
  }
  disconnect(): void {
    /* nothing */
  }
}

globalThis.ResizeObserver = NoResize
