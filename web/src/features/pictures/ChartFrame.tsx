import { useRef } from 'react'
import { decimalsOf } from '../strip/geometry'
import { csvOf, download, pictureOf } from './export'

export interface Axis {
  readonly unit: string
  readonly ticks: readonly number[]
  readonly from: number
  readonly to: number
}

export interface Curve {
  readonly name: string
  readonly points: readonly (readonly [number, number])[]
  readonly className: string
}

interface Props {
  readonly label: string
  /** Beginning of the names of exported files. */
  readonly name: string
  readonly curves: readonly Curve[]
  readonly xAxis: Axis
  readonly yAxis: Axis
  readonly mark?: { readonly x: number; readonly text: string } | undefined
  readonly caption?: string
}

const [WIDTH, HEIGHT] = [320, 170]
const [LEFT, RIGHT, TOP, BOTTOM] = [44, 8, 12, 30]

/** A small chart with axes, taken along as CSV or as a picture. */
export function ChartFrame({ label, name, curves, xAxis, yAxis, mark, caption }: Props) {
  const picture = useRef<SVGSVGElement>(null)
  const x = (value: number) =>
    LEFT + ((value - xAxis.from) / (xAxis.to - xAxis.from)) * (WIDTH - LEFT - RIGHT)
  const y = (value: number) =>
    HEIGHT - BOTTOM - ((value - yAxis.from) / (yAxis.to - yAxis.from)) * (HEIGHT - TOP - BOTTOM)
  const path = (points: Curve['points']) =>
    `M${points.map(([a, b]) => `${x(a).toFixed(1)},${y(b).toFixed(1)}`).join('L')}`
  return (
    <figure className="picture chart">
      <svg ref={picture} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={label}>
        {yAxis.ticks.map((tick) => (
          <g key={tick} className="axes">
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(tick)} y2={y(tick)} />
            <text x={LEFT - 5} y={y(tick) + 4} textAnchor="end">
              {said(tick, decimalsOf(yAxis.ticks))}
            </text>
          </g>
        ))}
        {xAxis.ticks.map((tick) => (
          <text key={tick} x={x(tick)} y={HEIGHT - BOTTOM + 14} textAnchor="middle">
            {said(tick, decimalsOf(xAxis.ticks))}
          </text>
        ))}
        <text x={WIDTH - RIGHT} y={HEIGHT - 3} textAnchor="end">
          {xAxis.unit}
        </text>
        <text x={LEFT} y={TOP - 3}>
          {yAxis.unit}
        </text>
        {curves.map((curve) => (
          <path key={curve.name} className={curve.className} d={path(curve.points)}>
            <title>{curve.name}</title>
          </path>
        ))}
        {mark ? (
          <g className="marked">
            <line x1={x(mark.x)} x2={x(mark.x)} y1={TOP} y2={HEIGHT - BOTTOM} />
            <text x={x(mark.x) - 4} y={HEIGHT - BOTTOM - 5} textAnchor="end">
              {mark.text}
            </text>
          </g>
        ) : null}
      </svg>
      <figcaption className="quiet">
        {caption}
        <button
          type="button"
          className="link quiet"
          aria-label={`${label} as CSV`}
          onClick={() => download(`${name}.csv`, csvOf(xAxis.unit, yAxis.unit, curves), 'text/csv')}
        >
          CSV
        </button>{' '}
        <button
          type="button"
          className="link quiet"
          aria-label={`${label} as SVG`}
          onClick={() => {
            if (picture.current)
              download(`${name}.svg`, pictureOf(picture.current), 'image/svg+xml')
          }}
        >
          SVG
        </button>
      </figcaption>
    </figure>
  )
}

function said(value: number, decimals: number): string {
  return value.toFixed(decimals).replace(/^(-?)0\./, '$1.')
}
