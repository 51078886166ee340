import { expect, test } from 'vitest'
import {
  numberIn,
  percent,
  plain,
  readAngle,
  readIn,
  readLength,
  signedPercent,
  tenths,
} from './figures'

const scale = (unit: string, factor: number, decimals: number, offset = 0) => ({
  unit,
  factor,
  decimals,
  offset,
})
const inch = scale('in', 0.0254, 3)

test('thousandths are spoken without a zero before the point, and nothing has no sign', () => {
  expect(readLength(3.556, inch)).toBe('.140 in')
  expect(readLength(-3.556, inch)).toBe('-.140 in')
  expect(readLength(-1e-6, inch)).toBe('.000 in')
  expect(readLength(40, inch)).toBe('1.575 in')
  expect(readLength(0.5, scale('mm', 1e-3, 2))).toBe('0.50 mm')
})

test('a scale may count from another zero', () => {
  expect(readIn(373.15, scale('C', 1, 0, 273.15))).toBe('100 C')
  expect(numberIn(542.3, scale('lbf ft', 1.355818, 0))).toBe('400')
})

test('angles to a tenth as they are typed, shares in per cent', () => {
  expect([tenths(107.25), tenths(-0.001), readAngle(32)]).toEqual(['107.3', '0.0', '32.0 deg'])
  expect([percent(0.0312), percent(0.39, 0), signedPercent(-0.014), signedPercent(0.02)]).toEqual([
    '3.1 %',
    '39 %',
    '−1.4 %',
    '+2.0 %',
  ])
  expect([plain(-0.2), plain(1.6349, 3)]).toEqual(['0', '1.635'])
})
