import { expect, test } from 'vitest'
import type { Analysis } from '../../api/client'
import { COLUMNS } from './columns'

const scale = (unit: string, factor: number, offset = 0, decimals = 0) => ({
  unit,
  factor,
  offset,
  decimals,
})
const scales = {
  pressure_inch: scale('psi', 6894.757, 0, 1),
  pressure_metric: scale('kPa', 1e3),
  torque_inch: scale('lbf ft', 1.355818),
  power_metric: scale('kW', 1e3),
  temperature_inch: scale('F', 5 / 9, 255.3722),
  temperature_metric: scale('C', 1, 273.15),
} as Analysis['scales']
const column = (label: string) => {
  const found = COLUMNS.find((c) => c.label === label)
  if (!found) throw new Error(label)
  return found
}

test('pressures and temperatures are read in the system on screen', () => {
  expect(column('Torque').show(542.3, scales, 'inch')).toBe('400')
  expect(column('Power').show(250.4, scales, 'metric')).toBe('250')
  expect(column('Manifold').show(100, scales, 'inch')).toBe('14.5')
  expect(column('Manifold').unit(scales, 'metric')).toBe('kPa')
  expect([
    column('Exhaust gas').show(650, scales, 'inch'),
    column('Exhaust gas').show(650, scales, 'metric'),
  ]).toEqual(['1202', '650'])
  expect(column('Residual').show(0.0312, scales, 'inch')).toBe('3.1')
})
