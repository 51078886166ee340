import { useRef } from 'react'
import type { ScoreRow } from '../../api/client'
import { useWidth } from '../../model/useWidth'
import { scaleOf } from '../choose/scale'
import { TicksAlong, TicksUp } from '../choose/Ticks'
import { useScales } from '../torque/useScales'

const HEIGHT = 150
const ROOM = { left: 52, right: 12, above: 22, below: 30 }
const GAP = 12

interface Cost {
  readonly id: string
  readonly title: string
  readonly of: (row: ScoreRow) => number | null | undefined
}

/** What the last of power costs: life, money and reserve over peak power, a point for each candidate. */
export function LastPower({ rows }: { rows: readonly ScoreRow[] }) {
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder, 860, 320)
  const scales = useScales()
  if (!scales) return <div ref={holder} />
  const counted = rows.find(({ costs }) => costs.counted_in !== '')?.costs.counted_in ?? ''
  const costs: Cost[] = [
    { id: 'life', title: `Springs, ${counted} between looks`, of: ({ costs }) => costs.interval },
    { id: 'guide', title: 'Guide wear, 1 at its limit', of: ({ costs }) => costs.guide_wear },
    { id: 'money', title: 'Parts, USD', of: ({ costs }) => costs.money_usd },
    { id: 'control', title: 'Reserve of control, rpm', of: ({ costs }) => costs.control_rpm },
  ]
  const power = ({ costs }: ScoreRow) =>
    costs.peak_power_kw == null ? undefined : (costs.peak_power_kw * 1e3) / scales.power.factor
  const known = rows.filter((row) => power(row) !== undefined)
  const across = width < 640 ? 2 : 4
  const own = Math.floor((width - (across - 1) * GAP) / across)
  if (known.length < 2) return <div ref={holder} />
  return (
    <div ref={holder} className="last-power">
      <p className="quiet">
        What the last of power costs, over peak power: candidates by their place on the board, open
        where a limit is broken.
      </p>
      {costs.map((cost) => (
        <Panel
          key={cost.id}
          cost={cost}
          rows={known.filter((row) => cost.of(row) != null)}
          power={(row) => power(row) ?? 0}
          unit={scales.power.unit}
          width={own}
        />
      ))}
    </div>
  )
}

interface PanelProps {
  readonly cost: Cost
  readonly rows: readonly ScoreRow[]
  readonly power: (row: ScoreRow) => number
  readonly unit: string
  readonly width: number
}

function Panel({ cost, rows, power, unit, width }: PanelProps) {
  const [first] = rows
  if (!first) return null
  const value = (row: ScoreRow) => cost.of(row) ?? 0
  const across = scaleOf(rows.map(power), ROOM.left, width - ROOM.right)
  const up = scaleOf(rows.map(value), HEIGHT - ROOM.below, ROOM.above)
  // Ends of the scale are enough to read a small picture by.
  const ends = across.ticks.filter((_, i) => i === 0 || i === across.ticks.length - 1)
  const isFlat = rows.every((row) => value(row) === value(first))
  const ticks = isFlat ? [Number(value(first).toPrecision(4))] : up.ticks.slice(0, 4)
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${cost.title}, over peak power`}>
      <text className="sweep-scale last-power-title" x={4} y={12}>
        {cost.title}
      </text>
      <TicksUp ticks={ticks} at={up.at} from={ROOM.left} to={width - ROOM.right} />
      {rows.map((row) => (
        <g key={row.candidate}>
          <circle
            className={row.broken.length > 0 ? 'last-power-broken' : 'last-power-point'}
            cx={across.at(power(row))}
            cy={up.at(value(row))}
            r={4}
          >
            <title>
              {row.name}: {Math.round(power(row))} {unit}
            </title>
          </circle>
          <text className="sweep-scale" x={across.at(power(row)) + 7} y={up.at(value(row)) - 5}>
            {row.place}
          </text>
        </g>
      ))}
      <TicksAlong ticks={ends} at={across.at} y={HEIGHT - 12} unit={unit} />
    </svg>
  )
}
