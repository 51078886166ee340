import type { ValveDrawing } from '../../api/client'
import type { Link, Point, ValvePose } from './pose'
import { along, coilPath } from './pose'

/** Coils drawn of a spring. */
const TURNS = 5

/** Bore walls, head face and piston with the pocket cut in it. */
export function Piston({
  bore,
  crown,
  pocket,
}: {
  bore: number
  crown: number
  pocket: ValveDrawing['pocket'] | undefined
}) {
  const half = bore / 2
  return (
    <g>
      <rect className="metal" x={-half - 7} y={0} width={7} height={104} />
      <rect className="metal" x={half} y={0} width={7} height={104} />
      <line className="head-face" x1={-half - 7} x2={half + 7} y1={0} y2={0} />
      <path
        className="crown"
        d={`M${-half + 0.4},${crown} ${pocket ? pocketEdge(pocket, crown) : ''} L${half - 0.4},${crown} L${half - 0.4},${crown + 38} L${-half + 0.4},${crown + 38} Z`}
      />
    </g>
  )
}

/** The pocket's outline in the crown, from its left rim to its right one. */
function pocketEdge(pocket: NonNullable<ValveDrawing['pocket']>, crown: number): string {
  const tilt = (pocket.tilt_deg * Math.PI) / 180
  const radius = pocket.diameter_mm / 2
  const floor = { x: pocket.offset_mm, y: crown + pocket.floor_mm }
  const across = { x: Math.cos(tilt), y: -Math.sin(tilt) }
  const up = { x: -Math.sin(tilt), y: -Math.cos(tilt) }
  const rim = (from: { x: number; y: number }) => {
    const height = Math.max(0, (from.y - crown) / Math.cos(tilt))
    return along(from, up, height)
  }
  const [left, right] = [along(floor, across, -radius), along(floor, across, radius)]
  const places = [rim(left), left, right, rim(right)].filter(
    (p, i) => i === 0 || i === 3 || p.y > crown,
  )
  return places.map((p) => `L${p.x.toFixed(2)},${Math.max(p.y, crown).toFixed(2)}`).join(' ')
}

/** Valve, spring and retainer. */
export function Valve({
  valve,
  pose,
  side,
  wave,
}: {
  valve: ValveDrawing
  pose: ValvePose
  side: 'intake' | 'exhaust'
  /** How far coils are drawn above their even places, over the way from seat to retainer. */
  wave?: ((share: number) => number) | undefined
}) {
  const across = { x: pose.down.y, y: -pose.down.x }
  const edge = (from: { x: number; y: number }, half: number, up: number) =>
    along(along(from, across, half), pose.down, -up)
  const half = valve.head_mm / 2
  const stem = valve.stem_mm / 2
  const outline = [
    edge(pose.face, -half, 0),
    edge(pose.face, half, 0),
    edge(pose.face, half, valve.margin_mm),
    edge(pose.face, stem, half * 0.62),
    edge(pose.tip, stem, 0),
    edge(pose.tip, -stem, 0),
    edge(pose.face, -stem, half * 0.62),
    edge(pose.face, -half, valve.margin_mm),
  ]
  const spring = valve.spring
  return (
    <g>
      {spring ? (
        <>
          <path
            className="coil"
            d={coilPath(pose.seat, pose.retainer, spring.outside_mm - 4, TURNS, wave)}
          />
          <path
            className="seat-line"
            d={segment(
              edge(pose.seat, -spring.outside_mm / 2, 0),
              edge(pose.seat, spring.outside_mm / 2, 0),
            )}
          />
          <path
            className="retainer"
            d={segment(
              edge(pose.retainer, -spring.outside_mm / 2, 0),
              edge(pose.retainer, spring.outside_mm / 2, 0),
            )}
          />
        </>
      ) : null}
      <polygon
        className={`${side}-valve`}
        points={outline.map((p) => `${p.x.toFixed(2)},${p.y.toFixed(2)}`).join(' ')}
      />
    </g>
  )
}

interface TrainProps {
  readonly valve: ValveDrawing
  readonly link: Link
  readonly outline: string | undefined
  readonly camAngle: number
  /** Follower lift. */
  readonly follower: number
  /** Gaps as they are drawn: in the pushrod's cup, and between lobe and lifter. */
  readonly inCup?: number
  readonly onLobe?: number
}

/** Height of a lifter's body above its roller or foot: drawn, not measured. */
const BODY = { roller: 14, foot: 20 }

/** How far below the pushrod's foot the cam's centre stands, valve closed. */
export function camBelow(valve: ValveDrawing): number {
  return valve.roller
    ? BODY.roller + valve.follower_mm + valve.base_radius_mm
    : BODY.foot + valve.base_radius_mm
}

/** Rocker, pushrod, lifter and lobe. */
export function Train({
  valve,
  link: joined,
  outline,
  camAngle,
  follower,
  inCup = 0,
  onLobe = 0,
}: TrainProps) {
  const link = { ...joined, foot: along(joined.foot, joined.downRod, inCup) }
  const top = along(joined.cup, joined.downRod, inCup)
  const rod = (valve.pushrod_diameter_mm ?? 8) / 2
  const lean = (Math.atan2(-link.downRod.x, link.downRod.y) * 180) / Math.PI
  const half = valve.follower_mm / 2
  const body = valve.roller ? BODY.roller : BODY.foot
  // The cam stays where it is: the lifter has risen by the follower's lift.
  const cam = camBelow(valve) + follower + onLobe
  return (
    <g className="train">
      <path className="arm" d={segment(link.end, link.pivot) + segment(link.pivot, link.cup)} />
      {link.endRadius > 0 ? (
        <circle className="lifter" cx={link.end.x} cy={link.end.y} r={link.endRadius} />
      ) : null}
      <circle className="pivot" cx={link.pivot.x} cy={link.pivot.y} r={3.4} />
      <path className="rod" strokeWidth={2 * rod} d={segment(top, link.foot)} />
      {link.isReal ? null : <Break at={between(link.cup, link.foot)} />}
      <g
        transform={`translate(${link.foot.x.toFixed(2)} ${link.foot.y.toFixed(2)}) rotate(${lean.toFixed(2)})`}
      >
        <rect className="lifter" x={-10} y={0} width={20} height={body} rx={1.5} />
        {valve.roller ? (
          <circle className="lifter" cy={body + half} r={half} />
        ) : (
          <rect className="lifter" x={-half} y={body - 3} width={2 * half} height={3} />
        )}
        {outline ? (
          <path
            className="lobe"
            transform={`translate(0 ${cam.toFixed(2)}) rotate(${camAngle.toFixed(2)})`}
            d={outline}
          />
        ) : null}
        <circle className="pivot" cy={cam} r={1.6} />
      </g>
    </g>
  )
}

/** Says that a pushrod is longer than it is drawn. */
function Break({ at }: { at: Point }) {
  return (
    <path className="break" d={`M${at.x - 6},${at.y - 1} l12,-4 M${at.x - 6},${at.y + 5} l12,-4`} />
  )
}

function between(one: Point, other: Point): Point {
  return { x: (one.x + other.x) / 2, y: (one.y + other.y) / 2 }
}

function segment(from: { x: number; y: number }, to: { x: number; y: number }): string {
  return `M${from.x.toFixed(2)},${from.y.toFixed(2)}L${to.x.toFixed(2)},${to.y.toFixed(2)}`
}
