import { expect, test } from 'vitest'
import type { AssemblyLine } from '../../api/client'
import { doneOf, now, phasesOf } from './lines'

const line = (id: string, phase: string): AssemblyLine => ({
  id,
  phase,
  what: id,
  how: '',
  state: 'open',
  waits_for: [],
})

test('lines stand under their part of the work, in their order', () => {
  const lines = [line('a', 'Block'), line('b', 'Block'), line('c', 'Heads')]
  const phases = phasesOf(lines).map((own) => [own.phase, own.lines.map(({ id }) => id)])
  expect(phases).toEqual([
    ['Block', ['a', 'b']],
    ['Heads', ['c']],
  ])
  expect(doneOf({ done: 1, lines, cautions: [] })).toBe('1 of 3 lines done')
})

test('a line is signed with the day and the minute of the clock on the wall', () => {
  expect(now(new Date(2026, 2, 2, 9, 5))).toBe('2026-03-02 09:05')
})
