import { expect, test } from 'vitest'
import { frictionAt, partsAt, placeOf, spokenParts } from './energy'

const energy = {
  brake: [0.3, 0.28],
  friction: [0.03, 0.04],
  blower: [0, 0],
  pumping: [-0.01, 0.02],
  walls: [0.1, 0.09],
  exhaust: [0.38, 0.38],
  unburned: [0.2, 0.19],
  friction_by_part: {
    crank_kpa: [12, 18],
    reciprocating_kpa: [46, 57],
    gas_kpa: [18, 16],
    train_kpa: [17, 17],
    accessories_kpa: [12, 14],
    whole_kpa: [0, 0],
  },
}
const kpa = { unit: 'kPa', factor: 1e3, offset: 0, decimals: 0 }

test('parts are told at the speed looked at, what there is none of is left out, and they sum to one', () => {
  const parts = partsAt(energy, 1)
  expect(parts.map(({ key }) => key)).toEqual([
    'brake',
    'friction',
    'pumping',
    'walls',
    'exhaust',
    'unburned',
  ])
  expect(parts.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1)
  expect(spokenParts(partsAt(energy, 0))).toContain('gas exchange -1.0 %')
})

test('friction is told by its parts, a diesel as a whole', () => {
  expect(frictionAt(energy.friction_by_part, 1, kpa)).toBe(
    '122 kPa: crank 18, pistons and rods 57, gas on rings 16, valve train 17, accessories 14',
  )
  const none = [0]
  const diesel = {
    crank_kpa: none,
    reciprocating_kpa: none,
    gas_kpa: none,
    train_kpa: none,
    accessories_kpa: none,
    whole_kpa: [211],
  }
  expect(frictionAt(diesel, 0, kpa)).toBe('211 kPa')
})

test('a figure stands between its bounds, and at the end of the bar when it is far out', () => {
  expect(placeOf({ value: 1, low: 1, high: 2 })).toBeCloseTo(0.2)
  expect(placeOf({ value: 1.5, low: 1, high: 2 })).toBeCloseTo(0.5)
  expect(placeOf({ value: 9, low: 1, high: 2 })).toBe(1)
})
