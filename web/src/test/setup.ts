/** What browsers have and the page in tests lacks: nothing changes its size there. */
class NoResize implements ResizeObserver {
  observe(): void { /* nothing */ }
  unobserve(): void { /* nothing */ }
  disconnect(): void { /* nothing */ }
}

globalThis.ResizeObserver = NoResize
