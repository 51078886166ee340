import type { RockerReport, StripReport, ValveDrawing } from '../../api/client'
import { onCurve } from '../../model/scrub'

/** Places of one cylinder's parts at a crank angle, millimetres in the plane of the drawing. Pure. */

export interface Point {
  readonly x: number
  readonly y: number
}

/** Height of the spring seat above the closed face along the stem, where no stem was measured. */
const SEAT_ABOVE_FACE = 46
/** Spring where no height is given. */
const COMMON_HEIGHT = 45
/** Pushrod outside the cylinder wall, where no rocker is known. */
const ROD_BEYOND_BORE = 24

export interface ValvePose {
  /** Lowest point of the axis: centre of the face. */
  readonly face: Point
  readonly seat: Point
  readonly retainer: Point
  readonly tip: Point
  /** The same, valve closed. */
  readonly resting: Point
  readonly springHeight: number | undefined
  /** Unit vector down the stem. */
  readonly down: Point
  readonly lift: number
}

export function along(from: Point, direction: Point, distance: number): Point {
  return { x: from.x + distance * direction.x, y: from.y + distance * direction.y }
}

/** Valve, spring and retainer: from the stem as it was measured, or else from a seat at a usual height. */
export function poseOf(valve: ValveDrawing, lift: number): ValvePose {
  const tilt = (valve.tilt_deg * Math.PI) / 180
  const down = { x: Math.sin(tilt), y: Math.cos(tilt) }
  const closed = { x: valve.offset_mm ?? 0, y: valve.face_mm }
  const installed = valve.spring?.installed_mm
  const height = installed ?? COMMON_HEIGHT
  const stem =
    typeof valve.length_mm === 'number'
      ? valve.length_mm
      : SEAT_ABOVE_FACE + height + valve.below_tip_mm
  const resting = along(closed, down, -stem)
  const seat = along(resting, down, valve.below_tip_mm + height)
  const tip = along(resting, down, lift)
  return {
    face: along(closed, down, lift),
    seat,
    retainer: along(tip, down, valve.below_tip_mm),
    tip,
    resting,
    springHeight: installed === undefined ? undefined : installed - lift,
    down,
    lift,
  }
}

/** What opens the valve, in the plane of the drawing. */
export interface Link {
  readonly pivot: Point
  readonly cup: Point
  /** Centre of roller or pad, and its radius; the tip of the stem where no rocker is known. */
  readonly end: Point
  readonly endRadius: number
  /** Pushrod's lower end. */
  readonly foot: Point
  /** Unit vector down the pushrod, valve closed: lifter and lobe stand along it. */
  readonly downRod: Point
  /** Whether it is the geometry that lifts and ratios are computed from. */
  readonly isReal: boolean
}

/** The linkage as it is computed, at the lift of the pose: its plane has the pivot as origin, y up the stem, x towards it. */
export function linkOf(rocker: RockerReport, pose: ValvePose): Link {
  const up = { x: -pose.down.x, y: -pose.down.y }
  const towards = { x: pose.down.y, y: -pose.down.x }
  const [tipX = 0, tipY = 0] = rocker.tip_mm
  const stemTop = tipY - rocker.tip_radius_mm
  const pivot = along(along(pose.resting, up, -stemTop), towards, -rocker.stem_mm)
  const placed = ([x = 0, y = 0]: readonly number[]) => along(along(pivot, towards, x), up, y)
  const at = placeOf(rocker.valve_mm, pose.lift)
  const turn = ((rocker.turn_deg[at] ?? 0) * Math.PI) / 180
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)]
  // The arm turns clockwise as the cup rises: x towards the valve, y up.
  const end = placed([tipX * cos + tipY * sin, tipY * cos - tipX * sin])
  const [rodX = 0, rodY = 1] = rocker.pushrod_direction
  const downRod = along(along({ x: 0, y: 0 }, towards, -rodX), up, -rodY)
  const closedFoot = along(placed(rocker.cup_mm), downRod, rocker.pushrod_mm)
  return {
    pivot,
    cup: placed(rocker.cup_at_mm[at] ?? rocker.cup_mm),
    end,
    endRadius: rocker.tip_radius_mm,
    foot: along(closedFoot, downRod, -(rocker.lifter_mm[at] ?? 0)),
    downRod,
    isReal: true,
  }
}

/** A level rocker of the nominal ratio, its pushrod cut short: where nobody gave the arms. */
export function schemeOf(valve: ValveDrawing, pose: ValvePose, boreMm: number): Link {
  const { down, resting, lift } = pose
  // Square to the stem, on the pushrod's side of it, the pivot parting the arm by the ratio.
  const square = { x: -down.y, y: down.x }
  const ratio = valve.ratio ?? 1.6
  const rodX = -(boreMm / 2 + ROD_BEYOND_BORE)
  const span = (resting.x - rodX) / down.y
  const pivot = along(resting, square, (span * ratio) / (1 + ratio))
  const cup = along(along(pivot, square, span / (1 + ratio)), down, -lift / ratio)
  return {
    pivot,
    cup,
    end: pose.tip,
    endRadius: 0,
    foot: { x: rodX, y: SCHEME_FOOT - lift / ratio },
    downRod: { x: 0, y: 1 },
    isReal: false,
  }
}

/** Where the lifter of a pushrod that is cut short stands. */
const SCHEME_FOOT = 20

/** The place of the first lift that is no less. */
function placeOf(lifts: readonly number[], lift: number): number {
  const found = lifts.findIndex((each) => each >= lift - 1e-9)
  return found < 0 ? Math.max(0, lifts.length - 1) : found
}

/** A coil spring between two places as a zigzag of so many turns. */
export function coilPath(
  seat: Point,
  retainer: Point,
  width: number,
  turns: number,
  wave?: (share: number) => number,
): string {
  const count = turns * 2
  const across = { x: -(retainer.y - seat.y), y: retainer.x - seat.x }
  const length = Math.hypot(across.x, across.y) || 1
  const points = Array.from({ length: count + 1 }, (_, i) => {
    const even = i / count
    // A wave moves coils along the axis, the ends stay.
    const share = even + (wave && i > 0 && i < count ? wave(even) / length : 0)
    const side = (i % 2 === 0 ? 0.5 : -0.5) * width
    return `${(seat.x + share * (retainer.x - seat.x) + (side * across.x) / length).toFixed(2)},${(seat.y + share * (retainer.y - seat.y) + (side * across.y) / length).toFixed(2)}`
  })
  return `M${points.join('L')}`
}

/** Crank degree of full lift: the middle of the highest stretch of a lift curve. */
export function fullLiftAt(lift: readonly number[]): number {
  const most = lift.reduce((a, b) => Math.max(a, b), 0)
  const top = lift.flatMap((value, deg) => (value >= most - 1e-4 ? [deg] : []))
  return ((top[0] ?? 0) + (top.at(-1) ?? 0)) / 2
}

/** Outline of a lobe about its centre, nose upwards: base circle plus follower lift. */
export function lobePath(
  baseRadius: number,
  camDeg: readonly number[],
  lift: readonly number[],
): string {
  const at = (deg: number, radius: number) => {
    const angle = (deg * Math.PI) / 180
    return `${(radius * Math.sin(angle)).toFixed(2)},${(-radius * Math.cos(angle)).toFixed(2)}`
  }
  const nose = camDeg.map((deg, i) => at(deg, baseRadius + Math.max(0, lift[i] ?? 0)))
  const [first, last] = [camDeg[0] ?? -70, camDeg.at(-1) ?? 70]
  const heel = Array.from({ length: 24 }, (_, i) =>
    at(last + ((i + 1) / 25) * (360 - last + first), baseRadius),
  )
  return `M${[...nose, ...heel].join('L')}Z`
}

export interface Gap {
  readonly side: 'intake' | 'exhaust'
  readonly mm: number
}

/** The smaller of both gaps at an angle; `undefined` while neither is known. */
export function tightestAt(strip: StripReport, deg: number): Gap | undefined {
  const gaps = (['intake', 'exhaust'] as const).flatMap((side): Gap[] => {
    const curve = side === 'intake' ? strip.intake_clearance_mm : strip.exhaust_clearance_mm
    return curve ? [{ side, mm: onCurve(curve, deg) }] : []
  })
  return gaps.reduce<Gap | undefined>(
    (least, gap) => (least === undefined || gap.mm < least.mm ? gap : least),
    undefined,
  )
}
