import { expect, test } from 'vitest'
import { asked, begun, freeId, isOfOne, taken } from './sessions'

const next = {
  table: 'leaks',
  cells: [{ label: 'Cylinder', given: '3' }, { label: 'Supply' }, { label: 'Cylinder gauge' }],
  says: 'cylinder 3',
  tool: 'tester',
  place: 3,
  of: 8,
}

test('what stands already and what was read make one row', () => {
  expect(asked(next)).toEqual(['Supply', 'Cylinder gauge'])
  expect(taken('s1', next, ['100', '92'])).toEqual({
    take_reading: { session: 's1', table: 'leaks', cells: ['3', '100', '92'] },
  })
})

test('a session gets an identifier of its own', () => {
  expect(freeId([])).toBe('s1')
  expect(freeId([{ id: 's3' }, { id: 'x' }])).toBe('s4')
  const day = new Date('2026-03-02T10:00:00Z')
  expect(begun('springs', 's1', 'a', day)).toEqual({
    begin_session: { session: 's1', kind: 'springs', candidate: 'a', date: '2026-03-02', by: '' },
  })
  expect([isOfOne('degree_in'), isOfOne('springs')]).toEqual([true, false])
})
