import { useCandidate } from '../../model/useSession'
import { lobePath } from '../cylinder/pose'

/** Both lobes as they are seen from the front, to one scale, as far apart as they stand on the shaft. */
export function LobeDrawing() {
  const candidate = useCandidate()
  if (candidate?.lobe.state !== 'done' || candidate.timing.state !== 'done') return null
  if (candidate.drawing.state !== 'done') return null
  const { lobe, drawing, timing } = candidate
  const radius = drawing.intake.base_radius_mm
  const apart = timing.lobe_separation_deg
  return (
    <svg
      className="lobe-drawing"
      viewBox="-34 -34 68 68"
      role="img"
      aria-label={`Lobes ${apart.toFixed(1)} cam degrees apart`}
    >
      <path
        className="exhaust-lobe"
        transform={`rotate(${(-apart / 2).toFixed(1)})`}
        d={lobePath(radius, lobe.exhaust.cam_deg, lobe.exhaust.lift_mm)}
      />
      <path
        className="intake-lobe"
        transform={`rotate(${(apart / 2).toFixed(1)})`}
        d={lobePath(radius, lobe.intake.cam_deg, lobe.intake.lift_mm)}
      />
      <circle r="1.2" />
    </svg>
  )
}
