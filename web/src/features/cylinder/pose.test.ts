import { expect, test } from 'vitest'
import type { RockerReport, StripReport, ValveDrawing } from '../../api/client'
import { coilPath, fullLiftAt, linkOf, lobePath, poseOf, schemeOf, tightestAt } from './pose'

const valve: ValveDrawing = {
  offset_mm: -5,
  face_mm: -2,
  tilt_deg: 15,
  head_mm: 50,
  stem_mm: 8,
  margin_mm: 1.5,
  below_tip_mm: 5,
  ratio: 1.5,
  roller: true,
  follower_mm: 19,
  base_radius_mm: 18,
  spring: { installed_mm: 45, outside_mm: 36, retainer_depth_mm: 5 },
  flow: [],
  flow_reverse: [],
}

test('opening moves face, retainer and tip by the lift along the stem and nothing else', () => {
  const [closed, open] = [poseOf(valve, 0), poseOf(valve, 10)]
  for (const part of ['face', 'retainer', 'tip'] as const) {
    expect(Math.hypot(open[part].x - closed[part].x, open[part].y - closed[part].y)).toBeCloseTo(
      10,
      9,
    )
    expect(open[part].y).toBeGreaterThan(closed[part].y)
  }
  expect(open.seat).toEqual(closed.seat)
  expect(open.springHeight).toBe(35)
})

test('without arms the rocker is level, and the cup rises by lift over ratio', () => {
  const [closed, open] = [poseOf(valve, 0), poseOf(valve, 10)].map((pose) =>
    schemeOf(valve, pose, 100),
  )
  expect(closed?.cup.x).toBeCloseTo(-74, 9)
  expect((closed?.cup.y ?? 0) - (open?.cup.y ?? 0)).toBeCloseTo(
    (10 / 1.5) * Math.cos((15 * Math.PI) / 180),
    9,
  )
  expect(closed?.isReal).toBe(false)
})

test('a stem that was measured puts tip and spring seat where they are', () => {
  const pose = poseOf({ ...valve, tilt_deg: 0, length_mm: 120 }, 4)
  expect([pose.resting.y, pose.tip.y, pose.retainer.y, pose.seat.y]).toEqual([
    -122, -118, -113, -72,
  ])
})

/** A rocker of arms 36 and 22 mm that turns by ten degrees; by hand, not by a linkage. */
const turn = (10 * Math.PI) / 180
const rocker = {
  cup_mm: [-22, -4],
  tip_mm: [35, 6],
  tip_radius_mm: 6,
  stem_mm: 35.5,
  pushrod_direction: [0, 1],
  pushrod_mm: 190,
  lifter_mm: [0, 4],
  turn_deg: [0, 10],
  cup_at_mm: [
    [-22, -4],
    [-22 * Math.cos(turn) - 4 * Math.sin(turn), -4 * Math.cos(turn) + 22 * Math.sin(turn)],
  ],
  valve_mm: [0, 6],
} as unknown as RockerReport

test('the linkage stands where it is computed: arms as long as they are, the roller on the stem, the pushrod whole', () => {
  const closedPose = poseOf(valve, 0)
  const closed = linkOf(rocker, closedPose)
  const open = linkOf(rocker, poseOf(valve, 6))
  const far = (a: { x: number; y: number }, b: { x: number; y: number }) =>
    Math.hypot(a.x - b.x, a.y - b.y)
  for (const link of [closed, open]) {
    expect(far(link.pivot, link.end)).toBeCloseTo(Math.hypot(35, 6), 9)
    expect(far(link.pivot, link.cup)).toBeCloseTo(Math.hypot(22, 4), 9)
  }
  expect(far(closed.cup, closed.foot)).toBeCloseTo(190, 9)
  expect(far(closed.foot, open.foot)).toBeCloseTo(4, 9)
  // Up the stem from its tip to the roller's centre is the roller's radius; the turned tip goes down, the cup up.
  const { down, resting } = closedPose
  const above = (resting.x - closed.end.x) * down.x + (resting.y - closed.end.y) * down.y
  expect(above).toBeCloseTo(6, 9)
  expect(open.end.y).toBeGreaterThan(closed.end.y)
  expect(open.cup.y).toBeLessThan(closed.cup.y)
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
