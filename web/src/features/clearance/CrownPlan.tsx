import { readAngle, readLength } from '../../model/figures'
import { useCandidate, useLengthScale } from '../../model/useSession'
import type { Edge, PlanSide } from './plan'
import { planOf } from './plan'

const SIDES = ['intake', 'exhaust'] as const

/** The crown from above: valve edges at their tightest angles, and the pockets they must stay inside. */
export function CrownPlan() {
  const candidate = useCandidate()
  const scale = useLengthScale()
  const { drawing, clearance, strip } = candidate ?? {}
  if (drawing?.state !== 'done' || clearance?.state !== 'done' || strip?.state !== 'done')
    return null
  const lift = (side: 'intake' | 'exhaust') => {
    const at = Math.round(clearance[side].piston_minimum_at_deg)
    return strip[`${side}_lift_mm`][strip.crank_deg.indexOf(at)] ?? 0
  }
  const plan = planOf(drawing, { intake: lift('intake'), exhaust: lift('exhaust') })
  if (!plan || !scale) return null
  const half = drawing.bore_mm / 2
  const edge = half * 1.04
  const says = SIDES.map((side) => {
    const { radial_mm: radial, piston_minimum_at_deg: at } = clearance[side]
    const room =
      typeof radial === 'number'
        ? `${readLength(radial, scale)} to the wall`
        : 'its edge in no pocket'
    return `${side} at ${readAngle(at)}, ${room}`
  })
  return (
    <figure className="crown-plan">
      <svg
        viewBox={`${String(-edge)} ${String(-edge)} ${String(2 * edge)} ${String(2 * edge)}`}
        role="img"
        aria-label={`The crown from above: ${says.join('; ')}`}
      >
        <circle className="plan-bore" r={half} />
        {SIDES.map((side) => (
          <Side key={side} side={side} plan={plan[side]} />
        ))}
        <line className="plan-pin" x1={-half} x2={half} y1="0" y2="0" />
      </svg>
      <figcaption className="quiet">
        From above, each valve where it is tightest: {says.join('; ')}. Solid: valve edges, dashed:
        pockets.
      </figcaption>
    </figure>
  )
}

function Side({ side, plan }: { side: 'intake' | 'exhaust'; plan: PlanSide }) {
  return (
    <g className={`plan-${side}`}>
      {plan.pocket ? <Round edge={plan.pocket} className="plan-pocket" /> : null}
      {plan.valves.map((edge) => (
        <Round key={edge.y} edge={edge} className="plan-valve" />
      ))}
    </g>
  )
}

function Round({ edge, className }: { edge: Edge; className: string }) {
  return <ellipse className={className} cx={edge.x} cy={edge.y} rx={edge.across} ry={edge.along} />
}
