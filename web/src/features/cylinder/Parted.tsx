import type { Frame } from './film'
import type { Link, Point, ValvePose } from './pose'

/** Gaps smaller than this are no lost contact, mm: half a thousandth. */
const SEEN = 0.0127

/** Marks where the train has parted, each with its real size. */
export function Parted({
  frame,
  pose,
  link,
  read,
}: {
  frame: Frame
  pose: ValvePose
  link: Link
  read: (mm: number) => string
}) {
  const gaps: readonly { at: Point; mm: number; where: string }[] = [
    { at: pose.tip, mm: frame.stemGap, where: 'stem' },
    { at: link.cup, mm: frame.cupGap, where: 'cup' },
    { at: link.foot, mm: frame.lobeGap, where: 'lobe' },
  ]
  return (
    <g className="tightest">
      {gaps
        .filter((gap) => gap.mm > SEEN)
        .map((gap) => (
          <g key={gap.where}>
            <circle className="parted" cx={gap.at.x} cy={gap.at.y} r={7} />
            <text x={gap.at.x + 9} y={gap.at.y + 3}>
              {read(gap.mm)}
            </text>
          </g>
        ))}
    </g>
  )
}
