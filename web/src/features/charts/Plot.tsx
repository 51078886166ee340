import type { KeyboardEvent } from 'react'
import { useEffect, useMemo, useRef, useState } from 'react'
import type uPlot from 'uplot'
import { useLook } from '../../model/useLook'
import { useWidth } from '../../model/useWidth'
import { csvOf, download } from '../pictures/export'
import './charts.css'
import { Legend } from './Legend'
import { makePlot } from './makePlot'
import { pngOf } from './png'
import { readable } from './readable'
import type { Axis, Band, Curve, Mark, Stretch } from './series'
import { nearestTo, tableOf } from './series'

export interface ChartProps {
  readonly label: string
  /** Beginning of the names of exported files. */
  readonly name: string
  readonly curves: readonly Curve[]
  readonly bands?: readonly Band[]
  readonly x: Axis
  readonly y: Axis
  /** The axis at the right, where a curve asks for one. */
  readonly right?: Axis
  readonly stretches?: readonly Stretch[]
  readonly marks?: readonly Mark[]
  readonly height?: number
  /** The place looked at, when something else follows it too. */
  readonly at?: number
  readonly onAt?: (x: number) => void
}

const NONE: readonly never[] = []

/** One chart on a canvas: uPlot draws it, this reads it. */
export function Plot(props: ChartProps) {
  const {
    label,
    name,
    curves,
    bands = NONE,
    x,
    y,
    right,
    stretches = NONE,
    marks = NONE,
    height = 190,
    at,
    onAt,
  } = props
  const holder = useRef<HTMLDivElement>(null)
  const plot = useRef<uPlot>(undefined)
  const width = useWidth(holder, 0, 160)
  const look = useLook()
  const [place, setPlace] = useState<number | null>(null)
  // Where the plot's own place of the abscissa stands changes with zoom and width.
  const [scaled, setScaled] = useState(0)
  const data = useMemo(() => tableOf(curves), [curves])
  const shape = useMemo(
    () =>
      JSON.stringify([
        curves.map((curve) => ({ ...curve, points: 0 })),
        bands,
        x,
        y,
        right,
        stretches,
        marks,
        height,
      ]),
    [curves, bands, x, y, right, stretches, marks, height],
  )
  useEffect(() => {
    const element = holder.current
    if (!element || width <= 0) return undefined
    const made = makePlot({
      element,
      width,
      height,
      data,
      curves,
      bands,
      x,
      y,
      right,
      stretches,
      marks,
      onPlace: setPlace,
      onScaled: () => setScaled((times) => times + 1),
    })
    plot.current = made
    return () => {
      plot.current = undefined
      made.destroy()
    }
    // New values of the same curves go into the plot that stands, below: a drag makes no new one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [shape, look, width])
  useEffect(() => {
    plot.current?.setData(data as uPlot.AlignedData)
  }, [data])
  const line = useRef<HTMLDivElement>(null)
  useEffect(() => {
    // The place looked at moves often and alone: a line over the canvas draws nothing anew.
    if (line.current) standAt(line.current, plot.current, at)
  }, [at, scaled, data, shape, width])
  const all = data[0] ?? NONE
  const shown = place ?? (at === undefined ? null : nearestTo(at, all))
  const move = (to: number) => {
    const next = Math.min(Math.max(to, 0), all.length - 1)
    setPlace(next)
    const value = all[next]
    const drawn = plot.current
    if (typeof value !== 'number' || !drawn) return
    drawn.setCursor({ left: drawn.valToPos(value, 'x'), top: drawn.bbox.height / 4 }, false)
    onAt?.(value)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const now = shown ?? 0
    const step = event.shiftKey ? 10 : 1
    const to = { ArrowRight: now + step, ArrowLeft: now - step, Home: 0, End: all.length - 1 }[
      event.key
    ]
    if (event.key === 'Escape') setPlace(null)
    if (to === undefined) return
    event.preventDefault()
    move(to)
  }
  const value = shown === null ? undefined : all[shown]
  return (
    <figure className="plot">
      <Legend curves={curves} data={data} place={shown} x={x} />
      <div
        ref={holder}
        className="plot-canvas"
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuemin={rounded(all[0])}
        aria-valuemax={rounded(all.at(-1))}
        aria-valuenow={rounded(value ?? all[0])}
        aria-valuetext={
          value === undefined || value === null ? label : `${readable(value)} ${x.unit}`
        }
        style={{ height }}
        onKeyDown={onKeyDown}
        onPointerUp={() => {
          if (place !== null) {
            const chosen = all[place]
            if (typeof chosen === 'number') onAt?.(chosen)
          }
        }}
      >
        <div ref={line} className="plot-at" hidden />
      </div>
      <figcaption className="quiet">
        {label}{' '}
        <button
          type="button"
          className="link quiet"
          aria-label={`${label} as CSV`}
          onClick={() => download(`${name}.csv`, csvOf(x.unit, y.unit, curves), 'text/csv')}
        >
          CSV
        </button>{' '}
        <button
          type="button"
          className="link quiet"
          aria-label={`${label} as PNG`}
          onClick={() => {
            if (plot.current)
              void pngOf(plot.current, label, curves).then((blob) =>
                download(`${name}.png`, blob, 'image/png'),
              )
          }}
        >
          PNG
        </button>
      </figcaption>
    </figure>
  )
}

/** A number as an attribute takes it: no powers of ten, no dust. */
function rounded(value: number | null | undefined): number {
  return typeof value === 'number' ? Number(value.toFixed(6)) + 0 : 0
}

/** Moves a line to `x` on a plot; hides it where that is out of sight. */
function standAt(line: HTMLElement, plot: uPlot | undefined, x: number | undefined): void {
  const [from, to] = [plot?.scales['x']?.min, plot?.scales['x']?.max]
  const isSeen =
    plot !== undefined &&
    x !== undefined &&
    typeof from === 'number' &&
    typeof to === 'number' &&
    x >= from &&
    x <= to
  line.hidden = !isSeen
  if (!isSeen) return
  const { left, top, height } = plot.bbox
  const dense = window.devicePixelRatio
  line.style.transform = `translateX(${left / dense + plot.valToPos(x, 'x')}px)`
  line.style.top = `${top / dense}px`
  line.style.height = `${height / dense}px`
}
