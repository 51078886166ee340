// A browser may forbid a page to keep anything: a choice then holds until the page is closed.

/** What the browser kept under a key; nothing when it keeps nothing. */
export function kept(key: string): string | null {
  try {
    return localStorage.getItem(key)
  } catch {
    return null
  }
}

export function keep(key: string, text: string): void {
  try {
    localStorage.setItem(key, text)
  } catch {
    // Nothing is lost but the choice.
  }
}
