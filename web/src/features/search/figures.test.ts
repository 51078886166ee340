import { describe, expect, it } from 'vitest'
import type { SearchPoint } from '../../api/client'
import { EVERYTHING, passes, pointFigures } from './figures'

const point = {
  average_torque_nm: 500,
  low_torque_nm: 480,
  power_wanted_kw: 250,
  peak_power_kw: 255,
  control_rpm: null,
  interval: null,
  money_usd: 400,
  left: [0.3, null],
} as unknown as SearchPoint
const figures = pointFigures({
  torque: { factor: 1, unit: 'N m' },
  power: { factor: 1000, unit: 'kW' },
} as Parameters<typeof pointFigures>[0])

describe('what passes a filter', () => {
  it('is everything where nothing is asked', () => {
    expect(passes(point, EVERYTHING, figures)).toBe(true)
  })
  it('has so much left of a limit; what is not known has not', () => {
    expect(passes(point, { ...EVERYTHING, limit: 0, least: 0.3 }, figures)).toBe(true)
    expect(passes(point, { ...EVERYTHING, limit: 0, least: 0.31 }, figures)).toBe(false)
    expect(passes(point, { ...EVERYTHING, limit: 1, least: 0 }, figures)).toBe(false)
  })
  it('has its figure between both ends, each of which may be open', () => {
    const money = { ...EVERYTHING, figure: 'money' }
    expect(passes(point, money, figures)).toBe(true)
    expect(passes(point, { ...money, to: 400 }, figures)).toBe(true)
    expect(passes(point, { ...money, to: 399 }, figures)).toBe(false)
    expect(passes(point, { ...money, from: 401 }, figures)).toBe(false)
    expect(passes(point, { ...EVERYTHING, figure: 'control', from: 0 }, figures)).toBe(false)
  })
})
