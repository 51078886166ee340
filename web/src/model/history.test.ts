import { expect, test } from 'vitest'
import { begin, commit, redo, undo } from './history'

test('undo and redo walk the same documents both ways', () => {
  const history = commit(commit(begin('a'), 'b'), 'c')
  const back = undo(undo(history))
  expect(back.present).toBe('a')
  expect(redo(redo(back))).toEqual(history)
})

test('a commit after undo drops what was ahead', () => {
  const history = commit(undo(commit(begin('a'), 'b')), 'x')
  expect(history).toEqual({ past: ['a'], present: 'x', future: [] })
})

test('an unchanged document is no step, and the ends stay put', () => {
  const history = begin('a')
  expect(commit(history, 'a')).toBe(history)
  expect(undo(history)).toBe(history)
  expect(redo(history)).toBe(history)
})
