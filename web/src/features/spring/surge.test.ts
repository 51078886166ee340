import { expect, test } from 'vitest'
import { spikes } from './Surge'

test('meetings stand apart as spikes of their height, in rising speed', () => {
  const points = spikes([
    { order: 7, rpm: 6000, lift_um: 20 },
    { order: 8, rpm: 5250, lift_um: 12 },
  ])
  expect(points.map(([, y]) => y)).toEqual([0, 12, 0, 0, 20, 0])
  expect(points.map(([x]) => x)).toEqual([...points.map(([x]) => x)].sort((a, b) => a - b))
})
