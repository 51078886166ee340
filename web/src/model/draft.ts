/** Edits of this tab that are not saved, kept over a reload or a crash of the page. */

interface Draft {
  readonly base: number
  readonly document: string
}

/** What a tab may keep by itself; browsers can forbid it, and it can be full. */
export interface Kept {
  getItem: (key: string) => string | null
  setItem: (key: string, value: string) => void
  removeItem: (key: string) => void
}

const keyOf = (build: number) => `upper-lobe.draft.${build}`

/** The tab's storage; `undefined` where the browser forbids it. */
export function tabStorage(): Kept | undefined {
  try {
    return window.sessionStorage
  } catch {
    return undefined
  }
}

/** Keeps a draft, or forgets it when there is nothing unsaved; `false` when a reload would lose it. */
export function keepDraft(
  storage: Kept | undefined,
  build: number,
  draft: Draft | undefined,
): boolean {
  if (!storage) return draft === undefined
  try {
    if (draft) storage.setItem(keyOf(build), JSON.stringify(draft))
    else storage.removeItem(keyOf(build))
    return true
  } catch {
    // An older draft must not come back in place of this one.
    forget(storage, keyOf(build))
    return draft === undefined
  }
}

function forget(storage: Kept, key: string): void {
  try {
    storage.removeItem(key)
  } catch {
    // A storage that can no longer be written holds what it holds.
  }
}

/** The draft of a build; rubbish is none. */
export function draftOf(storage: Kept | undefined, build: number): Draft | undefined {
  try {
    const kept: unknown = JSON.parse(storage?.getItem(keyOf(build)) ?? 'null')
    if (typeof kept !== 'object' || kept === null || !('base' in kept) || !('document' in kept))
      return undefined
    const { base, document } = kept
    return typeof base === 'number' && typeof document === 'string' ? { base, document } : undefined
  } catch {
    return undefined
  }
}
