import { expect, test } from 'vitest'
import type { CurveReport } from '../../api/client'
import { pictureOf, powerOf, torqueOf } from './chart'
import { nearest } from './speed'

const curve = {
  speed_rpm: [2000, 3000, 4000],
  band_rpm: [2000, 4000],
  torque_nm: [400, 500, 450],
  power_kw: [84, 157, 188],
  pulled: [[2500, 460]],
  peaks: [
    { torque_nm: 505, power_kw: null, rpm: 3100, error_share: 0.06 },
    { torque_nm: null, power_kw: 189, rpm: 3900, error_share: 0.07 },
  ],
  error_share: [0.2, 0.1, 0.05],
  peak_wanted_rpm: 3800,
  shift_rpm: null,
} as unknown as CurveReport
const scale = { unit: '', factor: 1, offset: 0, decimals: 0 }
const scales = { torque: { ...scale, factor: 2 }, power: { ...scale, factor: 1e3 } }

test('torque and power are shown in their units over the computed speeds', () => {
  expect(torqueOf(curve, scales)).toEqual([
    [2000, 200],
    [3000, 250],
    [4000, 225],
  ])
  expect(powerOf(curve, scales)[2]).toEqual([4000, 188])
})

test('the picture has the band of the plan, the error on both sides, the others and the pull, each by its name', () => {
  const { curves, bands, stretches, marks } = pictureOf(
    curve,
    curve,
    [{ name: 'B', curve }],
    scales,
  )
  const [upper, lower] = bands[0]?.between ?? [0, 0]
  expect(curves[upper]?.points[0]).toEqual([2000, 240])
  expect(curves[lower]?.points[0]).toEqual([2000, 160])
  expect(curves.filter(({ quiet }) => !quiet).map(({ name }) => name)).toEqual([
    'torque',
    'power',
    'before, torque',
    'before, power',
    'B torque',
    'B power',
    'measured torque',
  ])
  const named = (name: string) => curves.find((drawn) => drawn.name === name)?.points
  expect([named('torque peaks'), named('power peaks')]).toEqual([[[3100, 252.5]], [[3900, 189]]])
  expect(stretches).toEqual([{ from: 2000, to: 4000, kind: 'wanted' }])
  expect(marks).toEqual([{ x: 3800, text: 'power peak wanted' }])
})

test('the speed nearest to the chosen one is looked at, the power peak when none is', () => {
  expect(nearest([2000, 3000, 4000], 3400, 4000)).toBe(1)
  expect(nearest([2000, 3000, 4000], 0, 4000)).toBe(2)
})
