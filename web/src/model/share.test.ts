import { expect, test } from 'vitest'
import { share } from './share'

test('equal parts keep their identity, changed ones do not', () => {
  const last = { a: { x: [1, 2, 3] }, b: [{ id: 1 }, { id: 2 }], c: 'text' }
  const next = share(last, { a: { x: [1, 2, 3] }, b: [{ id: 1 }, { id: 9 }], c: 'text' })
  expect(next).toEqual({ a: { x: [1, 2, 3] }, b: [{ id: 1 }, { id: 9 }], c: 'text' })
  expect(next.a).toBe(last.a)
  expect(next.b[0]).toBe(last.b[0])
  expect(next.b).not.toBe(last.b)
})

test('equal wholes are the old whole; other lengths and kinds are new', () => {
  const last = { list: [1, 2], deep: { n: null } }
  expect(share(last, { list: [1, 2], deep: { n: null } })).toBe(last)
  expect(share(last, { list: [1], deep: { n: null } })).toEqual({ list: [1], deep: { n: null } })
  expect(share([1, 2], { 0: 1, 1: 2 })).toEqual({ 0: 1, 1: 2 })
  expect(share(undefined, [1])).toEqual([1])
})
