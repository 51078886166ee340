import { Needs } from '../fields/Needs'
import { useCandidate } from '../session/useSession'
import type { CandidateReport } from '../../api/client'

type Lobe = Extract<CandidateReport['lobe'], { state: 'done' }>['intake']

const WIDTH = 360
const HEIGHT = 130

/** Follower lift and acceleration of both lobes over the cam angle: two cams of one card are not the same cam. */
export function LobePicture() {
  const lobe = useCandidate()?.lobe
  if (lobe?.state === 'failed') {
    return lobe.needs.length > 0 ? <Needs what="The lobes are drawn" reason={lobe.reason} needs={lobe.needs} /> : <p className="fault" role="alert">{lobe.reason}</p>
  }
  if (lobe?.state !== 'done') return null
  return (
    <div className="lobes">
      <Curve title="Follower lift" of={(l) => l.lift_mm} intake={lobe.intake} exhaust={lobe.exhaust} />
      <Curve title="Follower acceleration" of={(l) => l.acceleration} intake={lobe.intake} exhaust={lobe.exhaust} />
    </div>
  )
}

function Curve({ title, of, intake, exhaust }: { title: string; of: (lobe: Lobe) => number[]; intake: Lobe; exhaust: Lobe }) {
  const all = [...of(intake), ...of(exhaust)]
  const [low, high] = [Math.min(0, ...all), Math.max(...all)]
  const reach = Math.max(...[...intake.cam_deg, ...exhaust.cam_deg].map(Math.abs))
  const x = (deg: number) => ((deg + reach) / (2 * reach)) * WIDTH
  const y = (value: number) => HEIGHT - 4 - ((value - low) / (high - low)) * (HEIGHT - 8)
  const path = (lobe: Lobe) => `M${of(lobe).map((v, i) => `${x(lobe.cam_deg[i] ?? 0).toFixed(1)},${y(v).toFixed(1)}`).join('L')}`
  return (
    <figure>
      <figcaption>{title} <span className="quiet">over the cam angle, full lift in the middle</span></figcaption>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={title}>
        <line className="trace-zero" x1={0} x2={WIDTH} y1={y(0)} y2={y(0)} />
        <path className="exhaust-line" d={path(exhaust)} />
        <path className="intake-line" d={path(intake)} />
      </svg>
    </figure>
  )
}
