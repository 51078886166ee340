import type { LobeOutline } from '../../api/client'
import { lobePath } from '../cylinder/pose'

/** A cam's lobes beside its name, from the front and to one scale for the whole shelf: high and wide ones are told apart. */
export function LobeMarks({ lobes }: { lobes: readonly LobeOutline[] | undefined }) {
  if (!lobes || lobes.length === 0) return null
  return (
    <span className="lobe-marks" aria-hidden="true">
      {lobes.map(({ side, base_radius_mm, cam_deg, lift_mm }) => (
        <svg key={side} viewBox="-22 -34 44 56">
          <path className={`${side}-lobe`} d={lobePath(base_radius_mm, cam_deg, lift_mm)} />
        </svg>
      ))}
    </span>
  )
}
