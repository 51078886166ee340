import { useCallback, useSyncExternalStore } from 'react'

function read(): string {
  return window.location.hash
}

function subscribe(listener: () => void): () => void {
  window.addEventListener('hashchange', listener)
  return () => { window.removeEventListener('hashchange', listener) }
}

/** Number of the build that the address names, such as `#/build/3`, so that a reload opens it again. */
export function useBuildInAddress(): [number | undefined, (id: number) => void] {
  const hash = useSyncExternalStore(subscribe, read)
  const found = /^#\/build\/(\d{1,15})$/.exec(hash)
  const open = useCallback((id: number) => { window.location.hash = `#/build/${id}` }, [])
  return [found ? Number(found[1]) : undefined, open]
}

/** Puts a build into the address without opening it anew: it is the one on screen. */
export function rememberBuild(id: number | undefined): void {
  if (id !== undefined) window.history.replaceState(null, '', `#/build/${id}`)
}
