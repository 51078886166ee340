/** Undo and redo of one tab: whole documents, without limit. Pure. */
export interface History {
  readonly past: readonly string[]
  readonly present: string
  readonly future: readonly string[]
}

export function begin(document: string): History {
  return { past: [], present: document, future: [] }
}

/** `document` becomes the present; an unchanged one leaves everything as it is. */
export function commit(history: History, document: string): History {
  if (document === history.present) return history
  return { past: [...history.past, history.present], present: document, future: [] }
}

export function undo(history: History): History {
  const last = history.past.at(-1)
  if (last === undefined) return history
  return {
    past: history.past.slice(0, -1),
    present: last,
    future: [history.present, ...history.future],
  }
}

export function redo(history: History): History {
  const next = history.future[0]
  if (next === undefined) return history
  return {
    past: [...history.past, history.present],
    present: next,
    future: history.future.slice(1),
  }
}
