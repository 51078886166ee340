import { Select } from 'antd'
import { useRef, useState } from 'react'
import type { SearchPoint } from '../../api/client'
import { useWidth } from '../../model/useWidth'
import { scaleOf } from '../choose/scale'
import { TicksAlong, TicksUp } from '../choose/Ticks'
import { useScales } from '../torque/useScales'
import type { PointFigure } from './figures'
import { pointFigures } from './figures'

const HEIGHT = 300
const ROOM = { left: 56, right: 14, above: 10, below: 40 }
const RADIUS = { screened: 2.5, drafted: 3, foreseen: 4.5, full: 6 }

interface Props {
  readonly points: readonly SearchPoint[]
  /** The candidate as it stands. */
  readonly stands: SearchPoint | undefined
  readonly chosen: SearchPoint | undefined
  readonly onChoose: ((point: SearchPoint | undefined) => void) | undefined
}

/** Candidates over two of their figures; one is looked at by pointing at it and pinned by a press. */
export function TradeOff({ points, stands, chosen, onChoose }: Props) {
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder, 560, 280)
  const scales = useScales()
  const [over, setOver] = useState(['power_wanted', 'average_torque'])
  if (!scales) return <div ref={holder} />
  const figures = pointFigures(scales)
  const [x, y] = over.map((id) => figures.find((figure) => figure.id === id))
  if (!x || !y) return null
  const own = stands ? [...points, stands] : points
  const known = own.filter((point) => x.of(point) !== undefined && y.of(point) !== undefined)
  const pick = (place: number, label: string) => (
    <Select
      size="small"
      aria-label={label}
      value={over[place] ?? ''}
      options={figures.map(({ id, title }) => ({ value: id, label: title }))}
      popupMatchSelectWidth={false}
      onChange={(id: string) => {
        setOver(over.map((each, i) => (i === place ? id : each)))
      }}
    />
  )
  return (
    <div ref={holder} className="trade-off">
      <div className="trade-off-axes">
        {pick(1, 'Upwards')} over {pick(0, 'Across')}
      </div>
      {known.length < 2 ? (
        <p className="quiet">Nothing is known of these yet.</p>
      ) : (
        <Points
          known={known}
          stands={stands}
          axes={[x, y]}
          width={width}
          chosen={chosen}
          onChoose={onChoose}
        />
      )}
    </div>
  )
}

interface PointsProps {
  readonly known: readonly SearchPoint[]
  readonly stands: SearchPoint | undefined
  readonly axes: readonly [PointFigure, PointFigure]
  readonly width: number
  readonly chosen: SearchPoint | undefined
  readonly onChoose: ((point: SearchPoint | undefined) => void) | undefined
}

function Points({ known, stands, axes: [x, y], width, chosen, onChoose }: PointsProps) {
  const across = scaleOf(
    known.map((point) => x.of(point) ?? 0),
    ROOM.left,
    width - ROOM.right,
  )
  const up = scaleOf(
    known.map((point) => y.of(point) ?? 0),
    HEIGHT - ROOM.below,
    ROOM.above,
  )
  const place = (point: SearchPoint) => ({
    cx: across.at(x.of(point) ?? 0),
    cy: up.at(y.of(point) ?? 0),
  })
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label="Candidates of the search">
      <TicksUp ticks={up.ticks} at={up.at} from={ROOM.left} to={width - ROOM.right} />
      <TicksAlong ticks={across.ticks} at={across.at} y={HEIGHT - ROOM.below + 16} />
      <text className="sweep-scale" x={ROOM.left} y={HEIGHT - 4}>
        {x.title}; upwards {y.title}
      </text>
      {known.map((point, i) => (
        <circle
          key={i}
          className={`trade-${point.by}${point.holds ? '' : ' trade-broken'}${point === chosen ? ' trade-chosen' : ''}`}
          {...place(point)}
          r={RADIUS[point.by]}
          onMouseEnter={() => onChoose?.(point)}
          onClick={() => onChoose?.(point)}
        />
      ))}
      {stands ? (
        <g className="trade-stands">
          <circle {...place(stands)} r={9} />
          <text className="sweep-scale" x={place(stands).cx + 12} y={place(stands).cy + 4}>
            as it stands
          </text>
        </g>
      ) : null}
    </svg>
  )
}
