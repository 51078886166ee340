import type { CandidateReport } from '../../api/client'
import { Needs } from '../fields/Needs'
import { readAngle, readLength } from '../../model/figures'
import { useCandidate, useLengthScale } from '../../model/useSession'

type Clearances = Extract<CandidateReport['clearance'], { state: 'done' }>
type Scale = NonNullable<ReturnType<typeof useLengthScale>>

const ROWS: readonly {
  label: string
  of: (side: Clearances['intake']) => number | null | undefined
}[] = [
  { label: 'Valve to piston, along the stem', of: (s) => s.piston_minimum_mm },
  { label: 'Straight down the bore', of: (s) => s.piston_minimum_vertical_mm },
  { label: 'Square to the surface', of: (s) => s.piston_minimum_normal_mm },
  { label: 'For each degree of advance', of: (s) => s.per_degree_of_advance_mm },
  { label: 'To the pocket wall', of: (s) => s.radial_mm },
  { label: 'Retainer to seal at full lift', of: (s) => s.retainer_to_seal_mm },
]

/** Gaps at rest, cold, cam on time, both sides beside each other. */
export function GapsAtRest() {
  const clearance = useCandidate()?.clearance
  const scale = useLengthScale()
  if (clearance?.state === 'failed')
    return <Needs what="Clearances are known" reason={clearance.reason} needs={clearance.needs} />
  if (clearance?.state !== 'done' || !scale) return null
  return (
    <>
      <table className="figures">
        <thead>
          <tr>
            <td />
            <th scope="col" className="intake-text">
              Intake
            </th>
            <th scope="col" className="exhaust-text">
              Exhaust
            </th>
          </tr>
        </thead>
        <tbody>
          {ROWS.map((row) => (
            <tr key={row.label}>
              <th scope="row">{row.label}</th>
              <td>{read(row.of(clearance.intake), scale)}</td>
              <td>{read(row.of(clearance.exhaust), scale)}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">Tightest at, after firing top dead centre</th>
            <td>{readAngle(clearance.intake.piston_minimum_at_deg)}</td>
            <td>{readAngle(clearance.exhaust.piston_minimum_at_deg)}</td>
          </tr>
        </tbody>
      </table>
      <p>
        Valve to valve <b>{read(clearance.valve_to_valve_mm, scale)}</b>, piston to head{' '}
        <b>{read(clearance.piston_to_head_mm, scale)}</b>.
        <span className="quiet">
          {' '}
          At rest, cold, cam on time. Turn the engine by hand only, plugs or injectors out, when you
          check them.
        </span>
      </p>
    </>
  )
}

function read(mm: number | null | undefined, scale: Scale): string {
  return typeof mm === 'number' ? readLength(mm, scale) : 'unknown'
}
