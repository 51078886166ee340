interface UpProps {
  readonly ticks: readonly number[]
  /** Where a value lies. */
  readonly at: (value: number) => number
  readonly from: number
  readonly to: number
}

/** Lines across a picture with their values before them. */
export function TicksUp({ ticks, at, from, to }: UpProps) {
  return ticks.map((tick) => (
    <g key={tick}>
      <line className="sweep-grid" x1={from} x2={to} y1={at(tick)} y2={at(tick)} />
      <text className="sweep-scale" x={from - 6} y={at(tick) + 4} textAnchor="end">
        {tick}
      </text>
    </g>
  ))
}

interface AlongProps {
  readonly ticks: readonly number[]
  readonly at: (value: number) => number
  readonly y: number
  /** What follows the last value. */
  readonly unit?: string
}

/** Values below a picture. */
export function TicksAlong({ ticks, at, y, unit = '' }: AlongProps) {
  return ticks.map((tick, i) => (
    <text key={tick} className="sweep-scale" x={at(tick)} y={y} textAnchor="middle">
      {tick}
      {i === ticks.length - 1 && unit !== '' ? ` ${unit}` : ''}
    </text>
  ))
}
