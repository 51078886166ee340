import { expect, test } from 'vitest'
import type { CurveReport } from '../../api/client'
import { factorOf, inAir } from './air'

const curve = {
  torque_nm: [400, 500],
  power_kw: [80, 200],
  peak_torque_nm: 505,
  peak_power_kw: 201,
  average_torque_nm: 450,
  average_power_kw: null,
  peaks: [{ torque_nm: 505, power_kw: null, rpm: 4000, error_share: 0.06 }],
  pulled: [[4000, 480]],
  volumetric_efficiency: [0.8, 0.9],
  standard_air: [{ name: 'thick', factor: 1.04, peak_power_kw: 209 }],
} as unknown as CurveReport

test('in other air torque, power, peaks and the pull move together, and nothing else', () => {
  const other = inAir(curve, factorOf(curve, 'thick'))
  expect(other.torque_nm).toEqual([416, 520])
  expect([other.peak_power_kw, other.average_torque_nm]).toEqual([201 * 1.04, 468])
  expect(other.average_power_kw).toBeNull()
  expect(other.peaks[0]?.torque_nm).toBeCloseTo(525.2)
  expect(other.peaks[0]?.power_kw).toBeNull()
  expect(other.pulled[0]?.[1]).toBeCloseTo(499.2)
  expect(other.volumetric_efficiency).toBe(curve.volumetric_efficiency)
})

test('the plan’s own air, and air the curve does not know, leave the curve as it is', () => {
  expect(inAir(curve, factorOf(curve, undefined))).toBe(curve)
  expect(factorOf(curve, 'thin')).toBe(1)
})
