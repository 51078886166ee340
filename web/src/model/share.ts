/**
 * `next` with every part that equals the same part of `last` replaced by it, so that what did not
 * change keeps its identity and is not drawn again. Works in place on `next`, which must be fresh
 * JSON; curves are compared number by number without copying.
 */
export function share<T>(last: unknown, next: T): T {
  return shared(last, next) as T
}

function shared(last: unknown, next: unknown): unknown {
  if (Object.is(last, next)) return last
  if (Array.isArray(last) && Array.isArray(next)) return sharedList(last, next)
  if (isRecord(last) && isRecord(next)) return sharedRecord(last, next)
  return next
}

function sharedList(last: unknown[], next: unknown[]): unknown[] {
  let same = last.length === next.length
  for (let i = 0; i < next.length; i += 1) {
    if (typeof next[i] !== 'number') next[i] = shared(last[i], next[i])
    if (same && next[i] !== last[i]) {
      same = false
      if (typeof next[i] === 'number') break
    }
  }
  return same ? last : next
}

function sharedRecord(
  last: Record<string, unknown>,
  next: Record<string, unknown>,
): Record<string, unknown> {
  const keys = Object.keys(next)
  let same = Object.keys(last).length === keys.length
  for (const key of keys) {
    next[key] = shared(last[key], next[key])
    if (next[key] !== last[key]) same = false
  }
  return same ? last : next
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
