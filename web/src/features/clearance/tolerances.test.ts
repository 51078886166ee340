import { expect, test } from 'vitest'
import type { ToleranceLimit } from '../../api/client'
import { bandCurves, pictureOf, topOf, shareOf, shownLimits } from './tolerances'

const limit = {
  from: 1,
  width: 0.5,
  bars: [0.1, 0.4, 0.4, 0.1],
  need_min: 1.5,
  need_max: null,
  fails_any_share: 0.2,
  is_advice: false,
} as ToleranceLimit

test('bars and need share one axis, and what is beyond the need is told', () => {
  const picture = pictureOf(limit)
  expect(picture.needs).toHaveLength(1)
  const [need = 0] = picture.needs
  const [first, second] = picture.bars
  expect(first?.height).toBeCloseTo(0.25)
  // The first bar ends where the need stands, the second begins there.
  expect((first?.at ?? 0) + (first?.width ?? 0)).toBeCloseTo(need)
  expect(second?.at).toBeCloseTo(need)
  expect(picture.fails((first?.at ?? 0) + 0.01)).toBe(true)
  expect(picture.fails((second?.at ?? 0) + 0.01)).toBe(false)
})

test('a need outside the spread is in view all the same', () => {
  const picture = pictureOf({ ...limit, need_min: -4 })
  expect(picture.needs[0]).toBeGreaterThan(0)
  expect(picture.bars.every(({ at }) => at > 0.5)).toBe(true)
})

test('shares read as they are known', () => {
  expect([0, 0.00005, 0.004, 0.034, 0.52].map(shareOf)).toEqual([
    '0',
    'under .01 %',
    '0.40 %',
    '3.4 %',
    '52 %',
  ])
})

test('what can fail is shown first, and where nothing can, the next few', () => {
  const safe = { ...limit, fails_any_share: 0 }
  const advice = { ...limit, is_advice: true }
  expect(shownLimits([limit, safe, advice], false)).toEqual([limit])
  expect(shownLimits([safe, safe], false)).toHaveLength(2)
  expect(shownLimits([limit, safe, advice], true)).toHaveLength(3)
})

test('a band has its middle and two quiet edges for each valve', () => {
  const band = (mm: number) => ({ low_mm: [mm], middle_mm: [mm + 1], high_mm: [mm + 2] })
  const curves = bandCurves(
    { crank_deg: [360], intake: band(1), exhaust: band(5) },
    { factor: 0.001, offset: 0, unit: 'mm', decimals: 2 },
  )
  expect(curves.map(({ points }) => points[0]?.[1])).toEqual([2, 1, 3, 6, 5, 7])
  expect(curves.filter(({ quiet }) => quiet)).toHaveLength(4)
  expect(topOf(curves)).toBe(14)
})
