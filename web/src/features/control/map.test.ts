import { expect, test } from 'vitest'
import type { DynamicsSide } from '../../api/client'
import { landing } from './AtSpeed'
import { fromFullLift, openColumns, speedAt, tone } from './map'

const side = (more: Partial<DynamicsSide>): DynamicsSide =>
  ({
    speed_rpm: [3000, 5000, 7000],
    crank_deg: [0, 180, 360, 540],
    contact_n: [
      [-1, 200, 300, -1],
      [-1, 0, 900, -1],
      [-1, 10, 0, -1],
    ],
    limiting_speed_rpm: 5200,
    ...more,
  }) as DynamicsSide

test('the map spans where the lobe holds the valve open', () => {
  expect(openColumns(side({}))).toEqual([1, 2])
})

test('tones grow with load, and where nothing is held there is none', () => {
  expect(tone(-1, 900)).toBeUndefined()
  expect([0, 149, 450, 899, 900].map((load) => tone(load, 900))).toEqual([0, 0, 3, 5, 5])
})

test('a column says how far it is from full lift', () => {
  expect([0, 2, 3].map((column) => fromFullLift(side({}), column))).toEqual([-360, 0, 180])
})

test('the speed looked at is the chosen one, or the one at the limit', () => {
  expect(speedAt(side({}), 6800)).toBe(2)
  expect(speedAt(side({}), 0)).toBe(1)
  expect(speedAt(side({ limiting_speed_rpm: null }), 0)).toBe(2)
})

test('a landing is told in the units on screen', () => {
  expect(landing(0.3048, 'inch')).toBe('1.0 ft/s')
  expect(landing(0.3048, 'metric')).toBe('0.30 m/s')
})
