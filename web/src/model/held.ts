import { useSyncExternalStore } from 'react'

/** A value that moves too often to pass through the whole page: only who uses it is drawn again. */
export interface Held<T> {
  readonly read: () => T
  readonly subscribe: (listener: () => void) => () => void
  readonly set: (next: T) => void
}

export function held<T>(first: T): Held<T> {
  let now = first
  const listeners = new Set<() => void>()
  return {
    read: () => now,
    subscribe: (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    set: (next) => {
      now = next
      for (const listener of listeners) listener()
    },
  }
}

export function useHeld<T>(value: Held<T>): T {
  return useSyncExternalStore(value.subscribe, value.read)
}
