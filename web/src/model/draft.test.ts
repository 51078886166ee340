import { expect, test } from 'vitest'
import { draftOf, keepDraft } from './draft'

function storage(limit = Infinity) {
  const kept = new Map<string, string>()
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > limit) throw new Error('full')
      kept.set(key, value)
    },
    removeItem: (key: string) => {
      kept.delete(key)
    },
  }
}

test('a draft comes back for its build alone, and is forgotten when saved', () => {
  const own = storage()
  expect(keepDraft(own, 3, { base: 2, document: '{}' })).toBe(true)
  expect(draftOf(own, 3)).toEqual({ base: 2, document: '{}' })
  expect(draftOf(own, 4)).toBeUndefined()
  keepDraft(own, 3, undefined)
  expect(draftOf(own, 3)).toBeUndefined()
})

test('a full storage or rubbish in it is no draft and no failure', () => {
  const full = storage(10)
  expect(keepDraft(full, 1, { base: 1, document: 'x'.repeat(50) })).toBe(false)
  expect(draftOf(full, 1)).toBeUndefined()
  const odd = storage()
  for (const text of ['{', '[]', '{"base":"1","document":"x"}', 'null']) {
    odd.setItem('upper-lobe.draft.1', text)
    expect(draftOf(odd, 1)).toBeUndefined()
  }
})

test('a forbidden storage keeps nothing and says so', () => {
  const forbidden = {
    getItem: () => null,
    setItem: () => {
      throw new Error('no')
    },
    removeItem: () => {
      throw new Error('no')
    },
  }
  for (const storage of [undefined, forbidden]) {
    expect(keepDraft(storage, 1, { base: 1, document: '{}' })).toBe(false)
    expect(keepDraft(storage, 1, undefined)).toBe(true)
    expect(draftOf(storage, 1)).toBeUndefined()
  }
})
