import type { Frame } from './geometry'
import { angleTicks, ticks, xOf, yOf } from './geometry'

/** What the strip draws with, read from the style sheet so that light and dark stay in one place. */
export interface Ink {
  readonly quiet: string
  readonly edge: string
  readonly panel: string
  readonly crown: string
  readonly crownEdge: string
  readonly intake: string
  readonly intakeSoft: string
  readonly exhaust: string
  readonly exhaustSoft: string
}

export function inkOf(style: CSSStyleDeclaration): Ink {
  const of = (name: string) => style.getPropertyValue(name).trim()
  return {
    quiet: of('--quiet'),
    edge: of('--edge'),
    panel: of('--panel'),
    crown: of('--crown'),
    crownEdge: of('--crown-edge'),
    intake: of('--intake'),
    intakeSoft: of('--intake-soft'),
    exhaust: of('--exhaust'),
    exhaustSoft: of('--exhaust-soft'),
  }
}

/** Curves of one candidate on the strip, each a degree apart. */
export interface StripCurves {
  readonly intake: readonly number[]
  readonly exhaust: readonly number[]
  /** What the valves really get, where it is known. */
  readonly intakeRunning?: readonly number[] | undefined
  readonly exhaustRunning?: readonly number[] | undefined
  /** The crown as each valve sees it; the exhaust's only where it is known. */
  readonly crown: readonly number[]
  readonly crownOfExhaust: readonly number[] | undefined
}

/** A pen of the page or of a worker: both draw alike. */
export type Pen = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D

const FONT = "11px 'IBM Plex Sans', sans-serif"

const STROKES: readonly { name: string; centre: number }[] = [
  { name: 'Power', centre: 90 },
  { name: 'Exhaust', centre: 270 },
  { name: 'Intake', centre: 450 },
  { name: 'Compression', centre: 630 },
]

/** Degrees between drawn points: about a point for two pixels. */
function stepOf(frame: Frame): number {
  return Math.max(1, Math.round((2 * (frame.to - frame.from)) / frame.width))
}

/** Adds a curve to the pen's path; depths beyond the frame are held at its edge. Returns where it began and ended. */
export function trace(
  pen: Pick<Pen, 'moveTo' | 'lineTo'>,
  frame: Frame,
  curve: readonly number[],
  y: (value: number) => number,
): [number, number] {
  const first = Math.max(0, Math.floor(frame.from))
  const last = Math.min(curve.length - 1, Math.ceil(frame.to))
  const step = stepOf(frame)
  pen.moveTo(xOf(frame, first), y(curve[first] ?? 0))
  for (let deg = first + step; deg < last; deg += step)
    pen.lineTo(xOf(frame, deg), y(curve[deg] ?? 0))
  pen.lineTo(xOf(frame, last), y(curve[last] ?? 0))
  return [xOf(frame, first), xOf(frame, last)]
}

/** What lies under the curves and stays where it is through a drag: axes, strokes, words. */
export function paintGround(
  pen: Pen,
  frame: Frame,
  ink: Ink,
  unit: { name: string; mm: number },
  thin: string | undefined,
): void {
  pen.clearRect(0, 0, frame.width, frame.height)
  pen.font = FONT
  paintAxes(pen, frame, ink, unit)
  pen.textAlign = 'left'
  pen.fillText(
    thin === undefined ? 'closed valve' : `closed valve; thin line: ${thin}`,
    frame.left,
    frame.top - 12,
  )
}

/** Crown and lifts, and the head's face they hang from. `beside` is another candidate's lifts. */
export function paintCurves(
  pen: Pen,
  frame: Frame,
  ink: Ink,
  curves: StripCurves,
  beside?: StripCurves,
): void {
  pen.clearRect(0, 0, frame.width, frame.height)
  pen.save()
  pen.beginPath()
  pen.rect(
    frame.left,
    frame.top - 8,
    frame.width - frame.left - frame.right,
    frame.height - frame.top - frame.bottom + 8,
  )
  pen.clip()
  const depth = (mm: number) => yOf(frame, Math.min(Math.max(mm, 0), frame.depth))
  const fill = (curve: readonly number[], edge: number, colour: string) => {
    pen.beginPath()
    const [from, to] = trace(pen, frame, curve, depth)
    pen.lineTo(to, depth(edge))
    pen.lineTo(from, depth(edge))
    pen.fillStyle = colour
    pen.fill()
  }
  const line = (curve: readonly number[], colour: string, width: number, dash: number[]) => {
    pen.beginPath()
    trace(pen, frame, curve, depth)
    pen.strokeStyle = colour
    pen.lineWidth = width
    pen.setLineDash(dash)
    pen.stroke()
    pen.setLineDash([])
  }
  fill(curves.crown, frame.depth, ink.crown)
  line(curves.crown, ink.crownEdge, 1, [])
  if (curves.crownOfExhaust) line(curves.crownOfExhaust, ink.crownEdge, 1, [2, 3])
  fill(curves.exhaust, 0, ink.exhaustSoft)
  fill(curves.intake, 0, ink.intakeSoft)
  if (beside) {
    line(beside.exhaust, ink.exhaust, 1, [1, 3])
    line(beside.intake, ink.intake, 1, [1, 2])
  }
  if (curves.exhaustRunning) line(curves.exhaustRunning, ink.exhaust, 1, [])
  if (curves.intakeRunning) line(curves.intakeRunning, ink.intake, 1, [])
  line(curves.exhaust, ink.exhaust, 2, [7, 4])
  line(curves.intake, ink.intake, 2, [])
  pen.fillStyle = ink.quiet
  const face = Math.min(8, frame.top - 2)
  pen.fillRect(frame.left, frame.top - face, frame.width - frame.left - frame.right, face)
  pen.restore()
}

function paintAxes(pen: Pen, frame: Frame, ink: Ink, unit: { name: string; mm: number }): void {
  const bottom = frame.height - frame.bottom
  pen.strokeStyle = ink.edge
  pen.fillStyle = ink.quiet
  pen.lineWidth = 1
  pen.beginPath()
  pen.textAlign = 'right'
  for (const tick of ticks(0, frame.depth / unit.mm, 4)) {
    const y = Math.round(yOf(frame, tick * unit.mm)) + 0.5
    pen.moveTo(frame.left, y)
    pen.lineTo(frame.width - frame.right, y)
    pen.fillText(
      unit.name === 'in' ? tick.toFixed(1).replace(/^0/, '') : String(Math.round(tick)),
      frame.left - 6,
      y + 4,
    )
  }
  for (const deg of angleTicks(frame)) {
    const x = Math.round(xOf(frame, deg)) + 0.5
    pen.moveTo(x, frame.top)
    pen.lineTo(x, bottom)
    pen.textAlign = deg === 720 ? 'right' : 'center'
    pen.fillText(String(deg), x, bottom + 15)
  }
  pen.stroke()
  pen.textAlign = 'center'
  for (const stroke of STROKES) {
    if (stroke.centre > frame.from && stroke.centre < frame.to)
      pen.fillText(stroke.name, xOf(frame, stroke.centre), bottom - 6)
  }
}

/** Two curves of one trace under the strip, on the strip's axis. */
export function paintTrace(
  pen: Pen,
  frame: Frame,
  ink: Ink,
  curves: readonly (readonly number[] | null | undefined)[],
  range: { least: number; most: number },
): void {
  pen.clearRect(0, 0, frame.width, frame.height)
  const y = (value: number) =>
    frame.height -
    6 -
    ((Math.min(value, range.most) - range.least) / (range.most - range.least)) * (frame.height - 12)
  pen.lineWidth = 1
  pen.strokeStyle = ink.edge
  pen.beginPath()
  pen.moveTo(frame.left, y(0))
  pen.lineTo(frame.width - frame.right, y(0))
  pen.stroke()
  pen.save()
  pen.beginPath()
  pen.rect(frame.left, 0, frame.width - frame.left - frame.right, frame.height)
  pen.clip()
  pen.lineWidth = 2
  const [intake, exhaust] = curves
  for (const [curve, colour, dash] of [
    [exhaust, ink.exhaust, [7, 4]],
    [intake, ink.intake, []],
  ] as const) {
    if (!curve) continue
    pen.beginPath()
    trace(pen, frame, curve, y)
    pen.strokeStyle = colour
    pen.setLineDash([...dash])
    pen.stroke()
  }
  pen.restore()
}
