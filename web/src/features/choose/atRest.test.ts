import { expect, test } from 'vitest'
import type { CurveReport, FollowReport } from '../../api/client'
import { offOf, offWords } from './atRest'

const said = {
  speed_rpm: [2000, 3000, 4000],
  torque_nm: [404, 495, 450],
  average_torque_nm: 452,
} as unknown as FollowReport

test('what a drag showed is held against the computed curve, speed by speed', () => {
  const computed = {
    speed_rpm: [2000, 3000, 5000],
    torque_nm: [400, 500, 300],
    average_torque_nm: 450,
  } as unknown as CurveReport
  const off = offOf(said, computed)
  expect(off?.average).toBeCloseTo(2 / 450, 9)
  expect(off?.most).toBeCloseTo(0.01, 9)
  expect(off && offWords(off)).toBe(
    'the curves around it were off by +0.44 % on average, 1.00 % at most at a single speed',
  )
})

test('curves at other speeds are not compared, and a band without an average has none', () => {
  const elsewhere = { speed_rpm: [1500], torque_nm: [300] } as unknown as CurveReport
  expect(offOf(said, elsewhere)).toBeUndefined()
  const plain = { speed_rpm: [2000], torque_nm: [400] } as unknown as CurveReport
  expect(offOf(said, plain)).toEqual({
    average: undefined,
    most: expect.closeTo(0.01, 9) as number,
  })
})
