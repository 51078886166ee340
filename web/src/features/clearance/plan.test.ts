import { expect, test } from 'vitest'
import type { ValveDrawing } from '../../api/client'
import { planSide } from './plan'

const valve = {
  offset_mm: -4,
  offset_y_mm: -23,
  second_mm: null,
  tilt_deg: 30,
  head_mm: 50,
  pocket: { offset_mm: -3, offset_y_mm: -23, floor_mm: 3, diameter_mm: 54, tilt_deg: 0 },
} as ValveDrawing

test('a tilted valve is narrower across the engine and moves across it as it opens', () => {
  const plan = planSide(valve, 10)
  expect(plan?.valves).toHaveLength(1)
  const [edge] = plan?.valves ?? []
  // By hand: 10 mm along a stem at 30 degrees is 5 mm across; 25 mm of radius are seen as 21.65.
  expect(edge?.x).toBeCloseTo(1)
  expect(edge?.across).toBeCloseTo(21.65, 2)
  expect(edge?.along).toBe(25)
  expect(plan?.pocket).toEqual({ x: -3, y: -23, across: 27, along: 27 })
})

test('a valve that nobody placed has no plan', () => {
  expect(planSide({ ...valve, offset_y_mm: null }, 0)).toBeUndefined()
})
