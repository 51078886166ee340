import { Segmented } from 'antd'
import { useState } from 'react'
import type { RockerReport } from '../../api/client'
import { Needs } from '../fields/Needs'
import { Chart } from '../charts/Chart'
import { plain, readLength } from '../../model/figures'
import { useLengthScale, useSessionPart } from '../../model/useSession'
import type { SideName } from './useTrain'
import { SIDES, useTrain } from './useTrain'

const NEEDS = [
  { key: 'pivot_to_tip', label: 'Pivot to tip' },
  { key: 'pivot_to_cup', label: 'Pivot to cup' },
]

/** The rocker to scale through its sweep, with the pattern its tip leaves on the stem. */
export function RockerPicture() {
  const { train } = useTrain()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const system = useSessionPart((state) => state.system)
  const scale = useLengthScale()
  const [side, setSide] = useState<SideName>('intake')
  const [share, setShare] = useState(0)
  if (!train || !scale) return null
  const rocker = train[side].rocker
  if (!rocker || rocker.valve_mm.length < 2)
    return (
      <Needs
        what="The rocker is drawn through its sweep"
        reason="its geometry is not known"
        needs={NEEDS.map(({ key, label }) => ({
          field: `candidates[${index}].train.rocker.${key}`,
          label,
        }))}
      />
    )
  const at = Math.round(share * (rocker.valve_mm.length - 1))
  const said = (mm: number | undefined) => readLength(Math.abs(mm ?? 0), scale)
  return (
    <section className="rocker" aria-label="Rocker through its sweep">
      <div className="rocker-tools">
        <Segmented
          size="small"
          aria-label="Side"
          options={SIDES.map((name) => ({ value: name, label: name }))}
          value={side}
          onChange={setSide}
        />
        <label className="sweep">
          valve lift{' '}
          <input
            type="range"
            min="0"
            max="1"
            step={1 / (rocker.valve_mm.length - 1)}
            value={share}
            onChange={(event) => setShare(event.target.valueAsNumber)}
            aria-valuetext={said(rocker.valve_mm[at])}
          />
        </label>
        <span className="figure">{said(rocker.valve_mm[at])}</span>
        <span className="quiet">ratio here {plain(rocker.ratio[at] ?? 0, 3)}</span>
      </div>
      <div className="rocker-views">
        <Linkage rocker={rocker} at={at} side={side} />
        <Charts rocker={rocker} />
      </div>
      <p className="quiet">
        Pattern {rocker.pattern[system]} wide, the contact travels {rocker.scrub[system]} in one
        opening{rocker.side_load ? `; up to ${rocker.side_load[system]} across the guide` : ''}.
      </p>
    </section>
  )
}

/** Pivot in the origin; the arm is turned as a whole, the stem moves along itself. */
function Linkage({ rocker, at, side }: { rocker: RockerReport; at: number; side: SideName }) {
  const [cupX = 0, cupY = 0] = rocker.cup_mm
  const [tipX = 0, tipY = 0] = rocker.tip_mm
  const [atX = 0, atY = 0] = rocker.cup_at_mm[at] ?? rocker.cup_mm
  const valve = rocker.valve_mm[at] ?? 0
  const stem = (rocker.stem_diameter_mm ?? 8) / 2
  const top = -(tipY - rocker.tip_radius_mm) + valve
  const lifter = rocker.lifter_mm[at] ?? 0
  const [dirX = 0, dirY = 1] = rocker.pushrod_direction
  const shown = Math.min(rocker.pushrod_mm, 34)
  const foot = [
    cupX - (rocker.pushrod_mm - lifter) * dirX,
    cupY - (rocker.pushrod_mm - lifter) * dirY,
  ] as const
  // Only the pushrod's upper end is in the picture: a share of its line from the cup.
  const end = [
    atX + ((foot[0] - atX) * shown) / rocker.pushrod_mm,
    atY + ((foot[1] - atY) * shown) / rocker.pushrod_mm,
  ] as const
  const contact = rocker.contact_mm[at] ?? 0
  const low = Math.min(...rocker.contact_mm)
  const high = Math.max(...rocker.contact_mm)
  const left = Math.min(cupX, end[0]) - 12
  return (
    <svg
      className={`linkage ${side}`}
      viewBox={`${left} -22 ${rocker.stem_mm + 22 - left} 62`}
      role="img"
      aria-label={`${side} rocker to scale`}
    >
      <rect className="part" x={rocker.stem_mm - stem} y={top} width={2 * stem} height="80" />
      <line className="axis" x1={rocker.stem_mm} x2={rocker.stem_mm} y1={top - 8} y2="70" />
      <line className="part pushrod" x1={atX} y1={-atY} x2={end[0]} y2={-end[1]} />
      <g transform={`rotate(${rocker.turn_deg[at] ?? 0})`}>
        <path className="part arm" d={`M${cupX},${-cupY}L0,-7L${tipX},${-tipY}L0,6Z`} />
        <circle className="part" cx={tipX} cy={-tipY} r={rocker.tip_radius_mm} />
        <circle className="part" cx={cupX} cy={-cupY} r="4" />
      </g>
      <circle className="part pivot" r="5" />
      <rect
        className="pattern"
        x={rocker.stem_mm + low}
        y={top - 0.9}
        width={Math.max(0.4, high - low)}
        height="1.8"
      />
      <line
        className="contact"
        x1={rocker.stem_mm + contact}
        x2={rocker.stem_mm + contact}
        y1={top - 4}
        y2={top + 4}
      />
    </svg>
  )
}

function Charts({ rocker }: { rocker: RockerReport }) {
  const scale = useLengthScale()
  if (!scale) return null
  const length = (mm: number) => (mm * 1e-3) / scale.factor
  const lifts = rocker.valve_mm.map(length)
  const most = Math.max(...lifts)
  const chart = (
    title: string,
    name: string,
    unit: string,
    values: readonly number[],
    pad: number,
  ) => {
    const [low, high] = [Math.min(...values) - pad, Math.max(...values) + pad]
    const points = values.map((value, i): [number, number] => [lifts[i] ?? 0, value])
    return (
      <Chart
        label={title}
        name={name}
        curves={[{ name: title, points, ink: 'plain' }]}
        x={{ unit: `valve lift, ${scale.unit}`, from: 0, to: most }}
        y={{ unit, from: low, to: high }}
        height={150}
      />
    )
  }
  return (
    <>
      {chart('Ratio through the sweep', 'rocker-ratio', ':1', rocker.ratio, 0.01)}
      {chart(
        'Contact from the middle of the stem',
        'rocker-contact',
        scale.unit,
        rocker.contact_mm.map(length),
        length(0.1),
      )}
    </>
  )
}
