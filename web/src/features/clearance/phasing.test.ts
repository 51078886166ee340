import { expect, test } from 'vitest'
import type { PhasingReport, Scale } from '../../api/client'
import { gapCurves, saysAt, stretchesOf, torqueCurves } from './phasing'

const report = {
  advance_deg: [-4, 0, 4],
  intake_clearance_mm: [2.54, 1.27, -0.2],
  exhaust_clearance_mm: [1, 2, 3],
  intake_at_speed_mm: [2.6, 1.4, 0.1],
  exhaust_at_speed_mm: null,
  fails: [[], [], ['Intake valve to piston']],
  set_deg: [-2.5, 2],
  torque: {
    average_torque_nm: [495, 500, 490],
    low_torque_nm: [400, 410, 420],
    peak_power_kw: [202, 200, 190],
    drafted_deg: [],
    off_share: 0.001,
  },
} as unknown as PhasingReport
const inch: Scale = { factor: 0.0254, offset: 0, unit: 'in', decimals: 3 }

test('gaps are drawn as long as there are any', () => {
  const curves = gapCurves(report, inch)
  expect(curves.map(({ name }) => name)).toEqual([
    'intake at speed',
    'intake at rest',
    'exhaust at rest',
  ])
  expect(curves[1]?.points[1]?.[1]).toBeCloseTo(0.05)
  expect(curves[1]?.points).toHaveLength(2)
})

test('torque is told against how the cam is given', () => {
  const [average, , power] = torqueCurves(report)
  ;[-1, 0, -2].forEach((by, i) => expect(average?.points[i]?.[1]).toBeCloseTo(by))
  expect(power?.points[0]?.[1]).toBeCloseTo(1)
  expect(torqueCurves({ ...report, torque: null })).toEqual([])
})

test('a place says what fails there', () => {
  expect(saysAt(report, 1)).toBe('As it is set: nothing that depends on phasing fails.')
  expect(saysAt(report, 2)).toBe('4.0 deg advanced: Intake valve to piston fails.')
  expect(stretchesOf(report)).toEqual([{ from: -2.5, to: 2, kind: 'wanted' }])
})
