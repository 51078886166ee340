import { useSyncExternalStore } from 'react'

const NARROW = '(width <= 1000px)'

function subscribe(changed: () => void): () => void {
  const query = window.matchMedia(NARROW)
  query.addEventListener('change', changed)
  return () => {
    query.removeEventListener('change', changed)
  }
}

/** Whether the window has no room for the margins beside the work. */
export function useNarrow(): boolean {
  return useSyncExternalStore(subscribe, () => window.matchMedia(NARROW).matches)
}
