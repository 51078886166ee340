import { useMemo } from 'react'
import type { CandidateReport, DrawingReport, StripReport, ValveDrawing } from '../../api/client'
import { onCurve, useScrub } from '../../model/scrub'
import { readLength } from '../../model/figures'
import { useLengthScale } from '../../model/useSession'
import type { SideName } from '../motion/useTrain'
import { SIDES } from '../motion/useTrain'
import { TakeSvg } from '../pictures/TakeSvg'
import type { Frame } from './film'
import { GAPS, waveOf } from './film'
import { Parted } from './Parted'
import { camBelow, Piston, Train, Valve } from './parts'
import type { Link, ValvePose } from './pose'
import { along, fullLiftAt, linkOf, lobePath, poseOf, schemeOf } from './pose'

export type Lobes = Extract<CandidateReport['lobe'], { state: 'done' }>
export type Trains = Extract<CandidateReport['train'], { state: 'done' }>

/** Bore walls and piston are drawn as far down as this, mm. */
const PISTON_SHOWN = 102

/** The linkage of one side: as it is computed, or a scheme where nobody gave the rocker's arms. */
function linkAt(
  side: SideName,
  drawing: DrawingReport,
  train: Trains | undefined,
  pose: ValvePose,
): Link {
  const rocker = train?.[side].rocker
  return rocker ? linkOf(rocker, pose) : schemeOf(drawing[side], pose, drawing.bore_mm)
}

/** The frame that holds both sides at any angle, so that they are drawn to one scale: from rocker to lobe, from pushrod to bore wall. */
export function viewOf(drawing: DrawingReport, train: Trains | undefined): string {
  const sides = SIDES.map((side) => {
    const valve = drawing[side]
    const pose = poseOf(valve, 0)
    const link = linkAt(side, drawing, train, pose)
    const cam = along(link.foot, link.downRod, camBelow(valve))
    const nose = valve.base_radius_mm + 12
    return {
      top: Math.min(pose.resting.y, link.pivot.y, link.end.y - link.endRadius) - 12,
      left: Math.min(link.cup.x, link.foot.x, cam.x - nose) - 10,
      bottom: Math.max(cam.y + nose, PISTON_SHOWN),
    }
  })
  const [top, left, bottom] = [
    Math.min(...sides.map((each) => each.top)),
    Math.min(...sides.map((each) => each.left)),
    Math.max(...sides.map((each) => each.bottom)),
  ]
  const right = drawing.bore_mm / 2 + 10
  return [left, top, right - left, bottom - top].map((edge) => edge.toFixed(0)).join(' ')
}

interface SectionProps {
  readonly side: SideName
  readonly drawing: DrawingReport
  readonly strip: StripReport
  readonly lobe: Lobes | undefined
  readonly train: Trains | undefined
  readonly view: string
  /** The train in motion at this angle, in the place of the one that turns slowly. */
  readonly frame?: Frame | undefined
}

/** A section through one valve across the engine at the scrubbed angle. */
export function Section({ side, drawing, strip, lobe, train, view, frame }: SectionProps) {
  const angle = useScrub()
  const scale = useLengthScale()
  const valve: ValveDrawing = drawing[side]
  const lifts = side === 'intake' ? strip.intake_lift_mm : strip.exhaust_lift_mm
  const gaps = side === 'intake' ? strip.intake_clearance_mm : strip.exhaust_clearance_mm
  const own = lobe?.[side]
  const outline = useMemo(
    () => (own ? lobePath(valve.base_radius_mm, own.cam_deg, own.lift_mm) : undefined),
    [own, valve.base_radius_mm],
  )
  const centre = useMemo(() => fullLiftAt(lifts), [lifts])
  const pose = poseOf(valve, frame ? Math.max(frame.valve, 0) : onCurve(lifts, angle))
  // A rocker that has left its stem is drawn as far off as the gap is exaggerated.
  const held = frame ? poseOf(valve, Math.max(frame.tip - (GAPS - 1) * frame.stemGap, 0)) : pose
  const link = linkAt(side, drawing, train, held)
  const crown = onCurve(strip.piston_mm, angle)
  const gap = gaps ? onCurve(gaps, angle) : undefined
  return (
    <figure>
      <svg
        viewBox={view}
        role="img"
        aria-label={`${side} valve, spring, rocker and piston at ${angle.toFixed(0)} degrees`}
      >
        <Piston bore={drawing.bore_mm} crown={crown} pocket={valve.pocket ?? undefined} />
        <Valve valve={valve} pose={pose} side={side} wave={frame ? waveOf(frame) : undefined} />
        <Train
          valve={valve}
          link={link}
          outline={outline}
          camAngle={(angle - centre) / 2}
          follower={own ? onFollower(own, (angle - centre) / 2) : 0}
          {...(frame ? { inCup: GAPS * frame.cupGap, onLobe: GAPS * frame.lobeGap } : {})}
        />
        {frame && scale ? (
          <Parted frame={frame} pose={pose} link={link} read={(mm) => readLength(mm, scale)} />
        ) : null}
        {!frame && gap !== undefined && gap < 30 && scale ? (
          <GapMark pose={pose} head={valve.head_mm} gap={gap} text={readLength(gap, scale)} />
        ) : null}
      </svg>
      <figcaption className={`${side}-text`}>
        {side} <TakeSvg name={`${side}-section`} />
      </figcaption>
    </figure>
  )
}

/** Follower lift at a cam angle from full lift, folded into one turn. */
function onFollower(lobe: { cam_deg: number[]; lift_mm: number[] }, camDeg: number): number {
  const folded = ((((camDeg + 180) % 360) + 360) % 360) - 180
  const first = lobe.cam_deg[0] ?? 0
  const place = folded - first
  return place < 0 || place > lobe.lift_mm.length - 1
    ? 0
    : Math.max(0, onCurve(lobe.lift_mm, place))
}

function GapMark({
  pose,
  head,
  gap,
  text,
}: {
  pose: ReturnType<typeof poseOf>
  head: number
  gap: number
  text: string
}) {
  // From the lowest edge of the face, along the stem.
  const low = pose.down.x >= 0 ? -1 : 1
  const x = pose.face.x + low * (head / 2) * pose.down.y
  const y = pose.face.y - low * (head / 2) * pose.down.x
  return (
    <g className="tightest">
      <line x1={x} y1={y} x2={x + gap * pose.down.x} y2={y + gap * pose.down.y} />
      <text x={x - 3} y={y + gap / 2 + 12} textAnchor="end">
        {text}
      </text>
    </g>
  )
}
