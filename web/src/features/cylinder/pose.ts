import type { StripReport, ValveDrawing } from '../../api/client'
import { onCurve } from '../../model/scrub'

/** Places of one cylinder's parts at a crank angle, millimetres in the plane of the drawing. Pure. */

export interface Point {
  readonly x: number
  readonly y: number
}

/** Height of the spring seat above the gasket face along the stem: drawn, not measured. */
export const SEAT_ABOVE_FACE = 46
/** Stem above the retainer. */
const TIP_ABOVE_RETAINER = 7
/** Pushrod outside the cylinder wall: drawn, until a build says its own. */
const ROD_BEYOND_BORE = 24

export interface ValvePose {
  /** Lowest point of the axis: centre of the face. */
  readonly face: Point
  readonly seat: Point
  readonly retainer: Point
  readonly tip: Point
  readonly springHeight: number | undefined
  readonly pivot: Point
  readonly cup: Point
  /** Where the pushrod stands. */
  readonly rodX: number
  /** Unit vector down the stem. */
  readonly down: Point
  readonly lift: number
}

export function along(from: Point, direction: Point, distance: number): Point {
  return { x: from.x + distance * direction.x, y: from.y + distance * direction.y }
}

export function poseOf(valve: ValveDrawing, lift: number, boreMm: number): ValvePose {
  const tilt = (valve.tilt_deg * Math.PI) / 180
  const down = { x: Math.sin(tilt), y: Math.cos(tilt) }
  const closed = { x: valve.offset_mm ?? 0, y: valve.face_mm }
  const face = along(closed, down, lift)
  const seat = along(closed, down, -SEAT_ABOVE_FACE)
  const installed = valve.spring?.installed_mm
  const retainer = along(seat, down, -(installed ?? 45) + lift)
  const tip = along(retainer, down, -TIP_ABOVE_RETAINER)
  const resting = along(tip, down, -lift)
  // Square to the stem, on the pushrod's side of it, the pivot parting the arm by the ratio.
  const square = { x: -down.y, y: down.x }
  const ratio = valve.ratio ?? 1.6
  const span = (resting.x + boreMm / 2 + ROD_BEYOND_BORE) / down.y
  const pivot = along(resting, square, (span * ratio) / (1 + ratio))
  const cup = along(along(pivot, square, span / (1 + ratio)), down, -lift / ratio)
  return {
    face,
    seat,
    retainer,
    tip,
    springHeight: installed === undefined ? undefined : installed - lift,
    pivot,
    cup,
    rodX: -(boreMm / 2 + ROD_BEYOND_BORE),
    down,
    lift,
  }
}

/** A coil spring between two places as a zigzag of so many turns. */
export function coilPath(seat: Point, retainer: Point, width: number, turns: number): string {
  const count = turns * 2
  const across = { x: -(retainer.y - seat.y), y: retainer.x - seat.x }
  const length = Math.hypot(across.x, across.y) || 1
  const points = Array.from({ length: count + 1 }, (_, i) => {
    const share = i / count
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
