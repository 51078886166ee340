import { expect, test } from 'vitest'
import type { CurveReport } from '../../api/client'
import { bandOf, frameOf, lineOf, rpmOf, spanOf, xOf, yOf } from './chart'
import { nearest } from './speed'

const curve = {
  speed_rpm: [2000, 3000, 4000],
  band_rpm: [2000, 4000],
  torque_nm: [400, 500, 450],
  power_kw: [84, 157, 188],
  pulled: [],
  error_share: [0.2, 0.1, 0.05],
} as unknown as CurveReport
const scale = { unit: '', factor: 1, offset: 0, decimals: 0 }
const frame = frameOf([curve], { torque: scale, power: { ...scale, factor: 1e3 } }, 800, 300)

test('axes end on round values that hold the curve with its error', () => {
  expect(frame.torque.least).toBeLessThanOrEqual(320)
  expect(frame.torque.most).toBeGreaterThanOrEqual(550)
  expect(frame.torque.most % 10).toBe(0)
  expect(spanOf([0, 1]).least).toBe(0)
})

test('a speed and its place in the picture belong together', () => {
  expect(rpmOf(frame, xOf(frame, 3100))).toBeCloseTo(3100, 9)
  expect(yOf(frame, frame.torque.most, frame.torque)).toBe(frame.top)
})

test('a line has a point for every speed and the error band goes there and back', () => {
  expect(lineOf(frame, curve.speed_rpm, curve.torque_nm, frame.torque).split('L')).toHaveLength(3)
  expect(bandOf(frame, curve, scale).split('L')).toHaveLength(6)
})

test('the speed looked at is the nearest computed one, and that of the power peak at first', () => {
  expect(nearest(curve.speed_rpm, 3400, 4000)).toBe(1)
  expect(nearest(curve.speed_rpm, 0, 3900)).toBe(2)
})
