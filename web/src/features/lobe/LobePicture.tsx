import { Segmented } from 'antd'
import { useState } from 'react'
import type { LobeReport } from '../../api/client'
import { Needs } from '../fields/Needs'
import type { SideName } from '../motion/useTrain'
import { SIDES } from '../motion/useTrain'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import { useCandidate, useLengthScale, useSessionPart } from '../../model/useSession'
import { LobesApart } from './LobesApart'
import './lobe.css'

interface Quantity {
  readonly name: string
  readonly title: string
  readonly unit: string
  readonly of: (lobe: LobeReport) => readonly number[]
}

const QUANTITIES: readonly Quantity[] = [
  { name: 'lift', title: 'Follower lift', unit: '', of: (l) => l.lift_mm },
  { name: 'velocity', title: 'Velocity', unit: '/deg', of: (l) => l.velocity },
  { name: 'acceleration', title: 'Acceleration', unit: '/deg²', of: (l) => l.acceleration },
  { name: 'jerk', title: 'Jerk', unit: '/deg³', of: (l) => l.jerk },
]

type Shown = 'both' | SideName

/** Follower motion over the cam angle: both lobes, or one with that of the candidate beside: two cams of one card are not the same cam. */
export function LobePicture() {
  const lobe = useCandidate()?.lobe
  const beside = useSessionPart((state) => state.answer?.beside)
  const scale = useLengthScale()
  const [chosen, setChosen] = useState<Shown>('both')
  if (lobe?.state === 'failed') {
    return lobe.needs.length > 0 ? (
      <Needs what="The lobes are drawn" reason={lobe.reason} needs={lobe.needs} />
    ) : (
      <p className="fault" role="alert">
        {lobe.reason}
      </p>
    )
  }
  if (lobe?.state !== 'done' || !scale) return null
  const other = beside?.lobe.state === 'done' ? beside.lobe : undefined
  const shown = beside && other ? chosen : 'both'
  const sides = shown === 'both' ? SIDES : [shown]
  const lines = ({ of }: Quantity): Curve[] => {
    const line = (lobeOf: LobeReport) =>
      of(lobeOf).map((mm, i): [number, number] => [
        lobeOf.cam_deg[i] ?? 0,
        (mm * 1e-3) / scale.factor,
      ])
    return [...sides].reverse().flatMap((side) => [
      ...(other
        ? [
            {
              name: `${side}, ${beside?.name ?? ''}`,
              points: line(other[side]),
              ink: side,
              beside: true,
            },
          ]
        : []),
      { name: side, points: line(lobe[side]), ink: side },
    ])
  }
  const all = [
    ...sides.map((side) => lobe[side]),
    ...(other ? sides.map((side) => other[side]) : []),
  ]
  const reach = Math.max(...all.flatMap((each) => each.cam_deg).map(Math.abs))
  return (
    <>
      {beside && other ? (
        <div className="lobe-row">
          <Segmented<Shown>
            size="small"
            aria-label="Lobes shown"
            value={chosen}
            onChange={setChosen}
            options={[{ value: 'both', label: 'both lobes' }, ...SIDES]}
          />
          <span className="quiet">thin and dotted: {beside.name}</span>
        </div>
      ) : (
        <p className="quiet">Lay another candidate beside this one to see their lobes together.</p>
      )}
      <div className="lobes">
        {QUANTITIES.map((quantity) => (
          <LobeChart
            key={quantity.name}
            quantity={quantity}
            curves={lines(quantity)}
            reach={reach}
            unit={scale.unit}
          />
        ))}
      </div>
      {beside?.lobes_apart ? (
        <LobesApart name={beside.name} apart={beside.lobes_apart} sides={sides} />
      ) : null}
    </>
  )
}

function LobeChart({
  quantity: { name, title, unit },
  curves,
  reach,
  unit: length,
}: {
  quantity: Quantity
  curves: readonly Curve[]
  reach: number
  unit: string
}) {
  return (
    <Chart
      label={`${title}, full lift in the middle`}
      name={`lobe-${name}`}
      curves={curves}
      x={{ unit: 'cam deg', from: -reach, to: reach }}
      y={{ unit: `${length}${unit}` }}
    />
  )
}
