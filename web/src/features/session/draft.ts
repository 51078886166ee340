/** Edits of this tab that are not saved, kept over a reload or a crash of the page. */

interface Draft {
  readonly base: number
  readonly document: string
}

interface Storage {
  getItem: (key: string) => string | null
  setItem: (key: string, value: string) => void
  removeItem: (key: string) => void
}

const keyOf = (build: number) => `upper-lobe.draft.${build}`

/** Keeps a draft, or forgets it when there is nothing unsaved. A full storage keeps the page working. */
export function keepDraft(storage: Storage, build: number, draft: Draft | undefined): void {
  try {
    if (draft) storage.setItem(keyOf(build), JSON.stringify(draft))
    else storage.removeItem(keyOf(build))
  } catch {
    storage.removeItem(keyOf(build))
  }
}

/** The draft of a build; rubbish is none. */
export function draftOf(storage: Storage, build: number): Draft | undefined {
  try {
    const kept: unknown = JSON.parse(storage.getItem(keyOf(build)) ?? 'null')
    if (typeof kept !== 'object' || kept === null || !('base' in kept) || !('document' in kept)) return undefined
    const { base, document } = kept
    return typeof base === 'number' && typeof document === 'string' ? { base, document } : undefined
  } catch {
    return undefined
  }
}
