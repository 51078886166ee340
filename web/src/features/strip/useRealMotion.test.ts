import { expect, test } from 'vitest'
import type { DynamicsReport, DynamicsSide } from '../../api/client'
import { overCycle } from './overCycle'
import { motionAt } from './useRealMotion'

test('a table that begins anywhere is read by its own angles', () => {
  const crank = Array.from({ length: 180 }, (_, i) => (102.5 + 4 * i) % 720)
  const values = crank.map((deg) => (deg > 300 && deg < 400 ? deg : 0))
  const over = overCycle(crank, values)
  expect(over).toHaveLength(721)
  expect(over[350]).toBeCloseTo(350, 6)
  expect(over[200]).toBe(0)
  expect(over[720]).toBeCloseTo(over[0] ?? -1, 9)
})

test('motion is that of the nearest speed, and no load is asked of a closed valve', () => {
  const side = {
    speed_rpm: [4000, 5000],
    crank_deg: [0, 180, 360, 540],
    valve_mm: [
      [0, 0, 0, 0],
      [0, 8, 0, 0],
    ],
    contact_n: [
      [0, 0, 0, 0],
      [-1, 900, -1, -1],
    ],
  } as unknown as DynamicsSide
  const report = { intake: side, exhaust: side } as DynamicsReport
  const motion = motionAt(report, 4800)
  expect(motion?.rpm).toBe(5000)
  expect(motion?.lift.intake[180]).toBe(8)
  expect(motion?.load.exhaust[360]).toBe(0)
  expect(motion?.load.exhaust[180]).toBe(900)
})
