import { expect, test } from 'vitest'
import type { Effect } from '../../api/client'
import { ranked } from './movers'

const effect = (id: string, average: number | null): Effect => ({
  id,
  label: id,
  change: '',
  average_torque: average,
  peak_power: null,
  peak_power_rpm: null,
  trouble: average === null ? 'no' : null,
})

test('the strongest decision stands first, whichever way it goes, and one that cannot be made last', () => {
  const movers = ranked(
    [effect('weak', 0.01), effect('broken', null), effect('strong', -0.04)],
    'average_torque',
  )
  expect(movers.map((mover) => mover.effect.id)).toEqual(['strong', 'weak', 'broken'])
  expect([movers[0]?.from, movers[0]?.length]).toEqual([-1, 1])
  expect(movers[1]?.length).toBeCloseTo(0.25, 9)
})

test('a change is read with its sign', () => {})
