import type { LobeReport } from '../../api/client'
import { readAngle, readLength } from '../../model/figures'
import { useCandidate, useLengthScale, useSessionPart } from '../../model/useSession'
import { SIDES } from './useTrain'

/** The lobe against what rides on it, in figures. */
export function LobeContact() {
  const lobe = useCandidate()?.lobe
  const scale = useLengthScale()
  const system = useSessionPart((state) => state.system)
  if (lobe?.state !== 'done' || !scale) return null
  const length = (mm: number | null | undefined) =>
    typeof mm === 'number' ? readLength(mm, scale) : undefined
  const rows: { name: string; of: (side: LobeReport) => string | undefined }[] = [
    { name: 'Smallest radius', of: (side) => length(side.minimum_radius_mm) },
    { name: 'Smallest hollow radius', of: (side) => length(side.hollow_radius_mm) },
    {
      name: 'Pressure angle',
      of: (side) => (side.pressure_angle_deg > 0 ? readAngle(side.pressure_angle_deg) : undefined),
    },
    { name: 'Contact from the middle of the foot', of: (side) => length(side.foot_offset_mm) },
    { name: 'Stress under the spring', of: (side) => side.contact_stress?.[system] },
    { name: 'Residual of the measured points', of: (side) => length(side.residual_mm) },
  ]
  const told = rows.filter((row) => SIDES.some((side) => row.of(lobe[side]) !== undefined))
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">Lobe and follower</th>
          {SIDES.map((side) => (
            <th key={side} scope="col">
              {side}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {told.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            {SIDES.map((side) => (
              <td key={side}>{row.of(lobe[side]) ?? ''}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
