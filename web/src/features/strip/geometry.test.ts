import { expect, test } from 'vitest'
import type { Frame } from './geometry'
import { angleTicks, decimalsOf, degOf, OVERLAP, ticks, WHOLE, xOf, yOf, zoomed } from './geometry'

const frame: Frame = {
  width: 820,
  height: 240,
  left: 50,
  right: 50,
  top: 20,
  bottom: 20,
  from: 0,
  to: 720,
  depth: 20,
}

test('degrees and pixels are each other turned round', () => {
  expect(xOf(frame, 0)).toBe(50)
  expect(xOf(frame, 720)).toBe(770)
  expect(degOf(frame, xOf(frame, 372.5))).toBeCloseTo(372.5, 10)
  expect(yOf(frame, 20)).toBe(220)
})

test('zoom keeps the place under the pointer and stays in the cycle', () => {
  const near = zoomed(WHOLE, 360, 0.5)
  expect(near).toEqual({ from: 180, to: 540 })
  expect(zoomed(near, 200, 4)).toEqual(WHOLE)
  expect(zoomed({ from: 350, to: 370 }, 360, 0.1)).toEqual({ from: 350, to: 370 })
  expect(zoomed(WHOLE, 0, 0.5).from).toBe(0)
})

test('axes have round ticks inside their range', () => {
  expect(ticks(0, 0.58, 5)).toEqual([0, 0.2, 0.4].map((v) => expect.closeTo(v, 9) as number))
  expect(angleTicks(OVERLAP)).toEqual([
    300, 310, 320, 330, 340, 350, 360, 370, 380, 390, 400, 410, 420,
  ])
  expect(angleTicks(WHOLE)).toEqual([0, 90, 180, 270, 360, 450, 540, 630, 720])
})

test('an axis has the decimals its step needs', () => {
  expect(decimalsOf([0, 0.2, 0.4])).toBe(1)
  expect(decimalsOf([-0.0001, -0.00005, 0])).toBe(5)
  expect(decimalsOf([0, 500, 1000])).toBe(0)
})
