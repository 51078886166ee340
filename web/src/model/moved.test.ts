import { expect, test } from 'vitest'
import type { Reading } from '../api/client'
import { moved } from './moved'

const reading = (id: string, inch: string, metric: string): Reading => ({
  id,
  label: id,
  shown: { inch, metric },
})

test('only what reads differently has moved, in the system on screen', () => {
  const before = [reading('lift', '.500 in', '12.70 mm'), reading('load', '350 lbf', '1557 N')]
  const after = [
    reading('lift', '.500 in', '12.71 mm'),
    reading('load', '352 lbf', '1566 N'),
    reading('new', '1', '1'),
  ]
  expect(moved(before, after, 'inch')).toEqual([
    { id: 'load', label: 'load', before: '350 lbf', after: '352 lbf' },
  ])
  expect(moved(before, after, 'metric').map((m) => m.id)).toEqual(['lift', 'load'])
})
