import type { CandidateReport } from '../../api/client'
import { Needs } from '../fields/Needs'
import { ChartFrame } from '../pictures/ChartFrame'
import { useCandidate, useLengthScale } from '../session/useSession'
import { ticks } from '../strip/geometry'

type Lobe = Extract<CandidateReport['lobe'], { state: 'done' }>['intake']

const CURVES: readonly { name: string; title: string; unit: string; of: (lobe: Lobe) => readonly number[] }[] = [
  { name: 'lift', title: 'Follower lift', unit: '', of: (l) => l.lift_mm },
  { name: 'velocity', title: 'Velocity', unit: '/deg', of: (l) => l.velocity },
  { name: 'acceleration', title: 'Acceleration', unit: '/deg²', of: (l) => l.acceleration },
  { name: 'jerk', title: 'Jerk', unit: '/deg³', of: (l) => l.jerk },
]

/** Follower motion of both lobes over the cam angle: two cams of one card are not the same cam. */
export function LobePicture() {
  const lobe = useCandidate()?.lobe
  const scale = useLengthScale()
  if (lobe?.state === 'failed') {
    return lobe.needs.length > 0 ? <Needs what="The lobes are drawn" reason={lobe.reason} needs={lobe.needs} /> : <p className="fault" role="alert">{lobe.reason}</p>
  }
  if (lobe?.state !== 'done' || !scale) return null
  const reach = Math.max(...[...lobe.intake.cam_deg, ...lobe.exhaust.cam_deg].map(Math.abs))
  return (
    <div className="lobes">
      {CURVES.map(({ name, title, unit, of }) => {
        const line = (side: Lobe) => of(side).map((mm, i): [number, number] => [side.cam_deg[i] ?? 0, (mm * 1e-3) / scale.factor])
        const curves = [
          { name: `exhaust ${name}`, points: line(lobe.exhaust), className: 'exhaust-line' },
          { name: `intake ${name}`, points: line(lobe.intake), className: 'intake-line' },
        ]
        const values = curves.flatMap((curve) => curve.points.map((p) => p[1]))
        const [low, high] = [Math.min(0, ...values), Math.max(...values)]
        return (
          <ChartFrame
            key={name}
            label={title}
            name={`lobe-${name}`}
            curves={curves}
            xAxis={{ unit: 'cam deg', ticks: ticks(-reach, reach, 4), from: -reach, to: reach }}
            yAxis={{ unit: `${scale.unit}${unit}`, ticks: ticks(low, high, 4), from: low, to: high * 1.04 }}
            caption={`${title}, full lift in the middle `}
          />
        )
      })}
    </div>
  )
}
