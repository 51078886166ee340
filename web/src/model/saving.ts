import { answered, client, Refusal } from '../api/client'
import { keepDraft, tabStorage } from './draft'
import type { Store } from './store'

/** Saves the document as it stands; a save from an older revision waits for a decision, nothing is lost. */
export async function saveNow(store: Store): Promise<undefined> {
  const { summary, history, savedDocument } = store.read()
  const document = history.present
  if (document === savedDocument) return
  try {
    const body = { base_revision: summary.revision, document }
    const saved = await answered(
      client.PUT('/api/builds/{id}', { params: { path: { id: summary.id } }, body }),
    )
    store.set({ summary: saved, savedDocument: document, ...SAVED })
  } catch (error) {
    const newest = error instanceof Refusal ? error.problem.newest_revision : undefined
    if (typeof newest === 'number') store.set({ staleAgainst: newest })
    else if (error instanceof Refusal && error.problem.status === 404) store.set({ gone: true })
    else store.refused(error)
  }
}

/** Keeps this tab's document as a build of its own; its number when it was kept. */
export async function saveAsNew(store: Store): Promise<number | undefined> {
  const { history, summary } = store.read()
  const document = history.present
  try {
    const made = await answered(client.POST('/api/builds', { body: { document } }))
    keepDraft(tabStorage(), summary.id, undefined)
    store.set({ summary: made, savedDocument: document, ...SAVED, gone: false })
    return made.id
  } catch (error) {
    store.refused(error)
    return undefined
  }
}

const SAVED = { trouble: undefined, staleAgainst: undefined, recovered: false } as const
