import { expect, test } from 'vitest'
import type { StripReport, ValveDrawing } from '../../api/client'
import { coilPath, fullLiftAt, lobePath, poseOf, tightestAt } from './pose'

const valve: ValveDrawing = {
  offset_mm: -5,
  face_mm: -2,
  tilt_deg: 15,
  head_mm: 50,
  stem_mm: 8,
  margin_mm: 1.5,
  ratio: 1.5,
  roller: true,
  follower_mm: 19,
  base_radius_mm: 18,
  spring: { installed_mm: 45, outside_mm: 36, retainer_depth_mm: 5 },
  flow: [],
  flow_reverse: [],
}

test('opening moves face, retainer and tip by the lift along the stem and nothing else', () => {
  const [closed, open] = [poseOf(valve, 0, 100), poseOf(valve, 10, 100)]
  for (const part of ['face', 'retainer', 'tip'] as const) {
    expect(Math.hypot(open[part].x - closed[part].x, open[part].y - closed[part].y)).toBeCloseTo(
      10,
      9,
    )
    expect(open[part].y).toBeGreaterThan(closed[part].y)
  }
  expect(open.seat).toEqual(closed.seat)
  expect(open.springHeight).toBe(35)
  // The cup rises by lift over ratio while the tip goes down.
  expect(closed.cup.x).toBeCloseTo(-74, 9)
  expect(closed.cup.y - open.cup.y).toBeCloseTo((10 / 1.5) * Math.cos((15 * Math.PI) / 180), 9)
})

test('full lift is the middle of a flat nose, and a lobe is closed and as high as its lift', () => {
  expect(fullLiftAt([0, 1, 2, 2, 2, 1, 0])).toBe(3)
  const path = lobePath(18, [-60, 0, 60], [0, 8, 0])
  expect(path).toContain('0.00,-26.00')
  expect(path.endsWith('Z')).toBe(true)
})

test('a spring is drawn from seat to retainer', () => {
  const path = coilPath({ x: 0, y: 0 }, { x: 0, y: -40 }, 30, 5)
  expect(path.startsWith('M15.00,0.00')).toBe(true)
  expect(path.endsWith('15.00,-40.00')).toBe(true)
})

test('the tightest gap is the smaller of what is known', () => {
  const strip = {
    intake_clearance_mm: [5, 3],
    exhaust_clearance_mm: null,
  } as unknown as StripReport
  expect(tightestAt(strip, 0.5)).toEqual({ side: 'intake', mm: 4 })
  expect(tightestAt({ ...strip, intake_clearance_mm: null }, 0)).toBeUndefined()
})
