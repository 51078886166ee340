/** Whether a text has every word that was typed to find it, in any case. Pure. */
export function hasWords(text: string, typed: string): boolean {
  const low = text.toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every((word) => low.includes(word))
}
