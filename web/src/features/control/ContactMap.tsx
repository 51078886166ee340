import type { KeyboardEvent, PointerEvent } from 'react'
import { useEffect, useMemo, useRef } from 'react'
import type { DynamicsReport, DynamicsSide } from '../../api/client'
import { useLook } from '../../model/useLook'
import { useWidth } from '../../model/useWidth'
import { fromFullLift, LOST_N, openColumns, tone } from './map'

interface Props {
  readonly report: DynamicsReport
  readonly side: DynamicsSide
  readonly name: 'intake' | 'exhaust'
  readonly at: number
  readonly onAt: (rpm: number) => void
}

const HEIGHT = 270
/** Room for the axes, left and below. */
const LEFT = 46
const BELOW = 34
const ABOVE = 6
/** How much of the ink each tone has. */
const SHARES = [0.1, 0.2, 0.32, 0.46, 0.6, 0.74]

/** Load on the lobe over speed and cam angle; where it is lost islands, the limit with its band a line. */
export function ContactMap({ report, side, name, at, onAt }: Props) {
  const holder = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const width = useWidth(holder, 0, 260)
  const look = useLook()
  const columns = useMemo(() => openColumns(side), [side])
  const rows = side.speed_rpm
  const [low, high] = [rows[0] ?? 0, rows.at(-1) ?? 1]
  useEffect(() => {
    const drawn = canvas.current
    if (drawn && width > 0) paint(drawn, width, { report, side, name, columns })
  }, [report, side, name, columns, width, look])
  const span = HEIGHT - ABOVE - BELOW
  const heightOf = (rpm: number) => ABOVE + span * (1 - (rpm - low) / Math.max(high - low, 1))
  const rpm = rows[at] ?? low
  const to = (place: number) => {
    const next = rows[Math.min(Math.max(place, 0), rows.length - 1)]
    if (next !== undefined) onAt(next)
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const next = {
      ArrowUp: at + 1,
      ArrowRight: at + 1,
      ArrowDown: at - 1,
      ArrowLeft: at - 1,
      Home: 0,
      End: rows.length - 1,
    }[event.key]
    if (next === undefined) return
    event.preventDefault()
    to(next)
  }
  const onPointer = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons === 0 && event.type !== 'pointerdown') return
    const y = event.clientY - event.currentTarget.getBoundingClientRect().top
    onAt(low + (high - low) * (1 - (y - ABOVE) / span))
  }
  const least = Math.round(side.minimum_contact_n[at] ?? 0)
  return (
    <figure className="plot">
      <div
        ref={holder}
        className="contact-map"
        role="slider"
        tabIndex={0}
        aria-label={`Load on the ${name} lobe over speed`}
        aria-orientation="vertical"
        aria-valuemin={low}
        aria-valuemax={high}
        aria-valuenow={rpm}
        aria-valuetext={`${String(rpm)} rpm: least load ${String(least)} N${least < LOST_N ? ', contact is lost' : ''}`}
        style={{ height: HEIGHT }}
        onKeyDown={onKeyDown}
        onPointerDown={onPointer}
        onPointerMove={onPointer}
      >
        <canvas ref={canvas} />
        <div className="contact-at" style={{ top: heightOf(rpm), left: LEFT }}>
          <span>{rpm} rpm</span>
        </div>
      </div>
      <figcaption className="quiet">
        Load on the {name} lobe: the stronger the more, hatched is lost contact; crank degrees from
        full lift.
      </figcaption>
    </figure>
  )
}

interface Picture {
  readonly report: DynamicsReport
  readonly side: DynamicsSide
  readonly name: 'intake' | 'exhaust'
  readonly columns: readonly [number, number]
}

/** Draws the whole map in the page's palette. */
function paint(canvas: HTMLCanvasElement, width: number, picture: Picture): void {
  const context = canvas.getContext('2d')
  if (!context) return
  const dense = window.devicePixelRatio
  canvas.width = width * dense
  canvas.height = HEIGHT * dense
  canvas.style.width = `${String(width)}px`
  canvas.style.height = `${String(HEIGHT)}px`
  context.setTransform(dense, 0, 0, dense, 0, 0)
  context.clearRect(0, 0, width, HEIGHT)
  const style = getComputedStyle(document.documentElement)
  const ink = (name: string) => style.getPropertyValue(name).trim()
  const { side, report, columns } = picture
  const [first, last] = columns
  const rows = side.speed_rpm
  const [low, high] = [rows[0] ?? 0, rows.at(-1) ?? 1]
  const span = HEIGHT - ABOVE - BELOW
  const x = (column: number) =>
    LEFT + ((width - LEFT - 4) * (column - first)) / Math.max(last + 1 - first, 1)
  const y = (rpm: number) => ABOVE + span * (1 - (rpm - low) / Math.max(high - low, 1))
  const most = Math.max(...side.contact_n.map((row) => Math.max(...row)), 1)
  const edge = (place: number) =>
    Math.round(y(0.5 * ((rows[place] ?? low) + (rows[place + 1] ?? rows[place] ?? high))))
  rows.forEach((_, place) => {
    const [top, bottom] = [edge(place), place === 0 ? Math.round(y(low)) : edge(place - 1)]
    for (let column = first; column <= last; column += 1) {
      const load = side.contact_n[place]?.[column] ?? -1
      const own = tone(load, most)
      if (own === undefined) continue
      const [left, right] = [Math.round(x(column)), Math.round(x(column + 1))]
      context.globalAlpha = SHARES[own] ?? 0
      context.fillStyle = ink(`--${picture.name}`)
      context.fillRect(left, top, right - left, bottom - top)
      if (load < LOST_N) {
        context.globalAlpha = 1
        context.fillStyle = ink('--panel')
        context.fillRect(left, top, right - left, bottom - top)
        context.strokeStyle = ink('--fails')
        context.lineWidth = 1.2
        context.beginPath()
        context.moveTo(left, bottom)
        context.lineTo(right, top)
        context.stroke()
      }
    }
  })
  context.globalAlpha = 1
  context.font = "11px 'IBM Plex Sans', system-ui, sans-serif"
  axes(context, { ink, x, y, width, low, high, side, columns })
  lines(context, { ink, y, width, low, high, side, report })
}

interface Frame {
  readonly ink: (name: string) => string
  readonly y: (rpm: number) => number
  readonly width: number
  readonly low: number
  readonly high: number
  readonly side: DynamicsSide
}

/** Speeds at the left, crank degrees from full lift below. */
function axes(
  context: CanvasRenderingContext2D,
  frame: Frame & {
    readonly x: (column: number) => number
    readonly columns: readonly [number, number]
  },
): void {
  const { ink, x, y, low, high, side, columns } = frame
  context.fillStyle = ink('--quiet')
  context.textAlign = 'right'
  context.textBaseline = 'middle'
  const step = high - low > 4000 ? 1000 : 500
  for (let rpm = Math.ceil(low / step) * step; rpm <= high; rpm += step)
    context.fillText(String(rpm), LEFT - 6, y(rpm))
  context.textAlign = 'center'
  context.textBaseline = 'top'
  for (let column = columns[0]; column <= columns[1]; column += 1) {
    const deg = Math.round(fromFullLift(side, column))
    if (deg % 40 === 0) context.fillText(`${String(deg)}°`, x(column), HEIGHT - BELOW + 6)
  }
}

/** The limit with its band, the shift and the missed shift. */
function lines(
  context: CanvasRenderingContext2D,
  frame: Frame & { readonly report: DynamicsReport },
): void {
  const { ink, y, width, low, high, side, report } = frame
  const inside = (rpm: number) => Math.min(Math.max(rpm, low), high)
  const [least, most] = side.limiting_speed_band_rpm ?? []
  if (least !== undefined && most !== undefined) {
    const top = y(inside(most))
    context.globalAlpha = 0.16
    context.fillStyle = ink('--fails')
    context.fillRect(LEFT, top, width - LEFT, y(inside(least)) - top)
    context.globalAlpha = 1
  }
  const line = (
    rpm: number | null | undefined,
    words: string,
    colour: string,
    dash: number[],
    x: number,
  ) => {
    if (typeof rpm !== 'number' || rpm < low || rpm > high) return
    context.strokeStyle = ink(colour)
    context.lineWidth = 1.5
    context.setLineDash(dash)
    context.beginPath()
    context.moveTo(LEFT, y(rpm))
    context.lineTo(width, y(rpm))
    context.stroke()
    context.setLineDash([])
    word(context, words, x, y(rpm) - 3, ink)
  }
  line(report.shift_rpm, 'shift', '--quiet', [2, 3], LEFT + 6)
  line(report.missed_rpm, 'missed shift', '--ink', [6, 3], LEFT + 60)
  line(side.limiting_speed_rpm, 'limiting speed', '--fails', [], LEFT + 160)
}

/** A word above a line, on paper of its own so that it is read over anything. */
function word(
  context: CanvasRenderingContext2D,
  words: string,
  x: number,
  y: number,
  ink: (name: string) => string,
): void {
  context.textAlign = 'left'
  context.textBaseline = 'bottom'
  context.fillStyle = ink('--panel')
  context.fillRect(x - 3, y - 14, context.measureText(words).width + 6, 15)
  context.fillStyle = ink('--ink')
  context.fillText(words, x, y)
}
