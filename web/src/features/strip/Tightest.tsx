import type { StripReport } from '../../api/client'
import { onCurve } from '../../model/scrub'
import { readLength } from '../../model/figures'
import { useCandidate, useLengthScale } from '../../model/useSession'
import type { Frame } from './geometry'
import { xOf, yOf } from './geometry'

/** The closest approach of each valve to the piston, marked with its figure. */
export function Tightest({ frame, report }: { frame: Frame; report: StripReport }) {
  const clearance = useCandidate()?.clearance
  const scale = useLengthScale()
  if (clearance?.state !== 'done' || !scale) return null
  const sides = [
    {
      name: 'intake',
      at: clearance.intake,
      lift: report.intake_lift_mm,
      anchor: 'start',
      shift: 5,
    },
    {
      name: 'exhaust',
      at: clearance.exhaust,
      lift: report.exhaust_lift_mm,
      anchor: 'end',
      shift: -5,
    },
  ] as const
  return (
    <g className="tightest">
      {sides.map(({ name, at, lift, anchor, shift }) => {
        const deg = at.piston_minimum_at_deg
        if (deg < frame.from || deg > frame.to) return null
        const top = onCurve(lift, deg)
        const x = xOf(frame, deg)
        const [from, to] = [
          yOf(frame, top),
          yOf(frame, Math.min(frame.depth, top + at.piston_minimum_mm)),
        ]
        return (
          <g key={name}>
            <line x1={x} x2={x} y1={from} y2={to} />
            <text x={x + shift} y={(from + to) / 2 + 4} textAnchor={anchor}>
              <title>{`Tightest ${name} gap, at ${deg.toFixed(1)} degrees`}</title>
              {readLength(at.piston_minimum_mm, scale)}
            </text>
          </g>
        )
      })}
    </g>
  )
}
