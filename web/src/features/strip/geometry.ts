/** The strip's own coordinates: crank degrees across, depth below the closed valve downwards. Pure. */

export interface Frame {
  readonly width: number
  readonly height: number
  readonly left: number
  readonly right: number
  readonly top: number
  readonly bottom: number
  /** Crank degrees at the left and right edge. */
  readonly from: number
  readonly to: number
  /** Depth at the lower edge, mm. */
  readonly depth: number
}

export function xOf(frame: Frame, deg: number): number {
  const inner = frame.width - frame.left - frame.right
  return frame.left + ((deg - frame.from) / (frame.to - frame.from)) * inner
}

export function degOf(frame: Frame, x: number): number {
  const inner = frame.width - frame.left - frame.right
  return frame.from + ((x - frame.left) / inner) * (frame.to - frame.from)
}

export function yOf(frame: Frame, mm: number): number {
  return frame.top + (mm / frame.depth) * (frame.height - frame.top - frame.bottom)
}

/** Tenths of a pixel: `toFixed` took a fifth of a drag's time. */
function tenth(value: number): number {
  return Math.round(value * 10) / 10
}

/** Degrees between drawn points: about a point for two pixels. */
function stepOf(frame: Frame): number {
  return Math.max(1, Math.round((2 * (frame.to - frame.from)) / frame.width))
}

/** Path of a curve a degree apart over the visible degrees; depths beyond the frame are held at its edge. */
export function linePath(frame: Frame, curve: readonly number[]): string {
  const first = Math.max(0, Math.floor(frame.from))
  const last = Math.min(curve.length - 1, Math.ceil(frame.to))
  const step = stepOf(frame)
  let path = ''
  for (let deg = first; deg <= last; deg = deg < last ? Math.min(deg + step, last) : last + 1) {
    const depth = Math.min(Math.max(curve[deg] ?? 0, 0), frame.depth)
    path += `${path === '' ? 'M' : 'L'}${tenth(xOf(frame, deg))},${tenth(yOf(frame, depth))}`
  }
  return path
}

/** The same, closed along depth `edge`. */
export function areaPath(frame: Frame, curve: readonly number[], edge: number): string {
  const line = linePath(frame, curve)
  if (line === '') return ''
  const first = Math.max(0, Math.floor(frame.from))
  const last = Math.min(curve.length - 1, Math.ceil(frame.to))
  const y = tenth(yOf(frame, edge))
  return `${line}L${tenth(xOf(frame, last))},${y}L${tenth(xOf(frame, first))},${y}Z`
}

export interface Zoom {
  readonly from: number
  readonly to: number
}

export const WHOLE: Zoom = { from: 0, to: 720 }
export const OVERLAP: Zoom = { from: 300, to: 420 }

/** Narrower (factor below one) or wider about `centre`, within the cycle, no narrower than 20 degrees. */
export function zoomed(zoom: Zoom, centre: number, factor: number): Zoom {
  const width = Math.min(720, Math.max(20, (zoom.to - zoom.from) * factor))
  const share = (centre - zoom.from) / (zoom.to - zoom.from)
  const from = Math.min(Math.max(0, centre - share * width), 720 - width)
  return { from, to: from + width }
}

/** Round steps for an axis of about `count` ticks. */
export function ticks(from: number, to: number, count: number): number[] {
  const raw = (to - from) / count
  const power = 10 ** Math.floor(Math.log10(raw))
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= raw) ?? raw
  const first = Math.ceil(from / step - 1e-9)
  const last = Math.floor(to / step + 1e-9)
  return Array.from({ length: last - first + 1 }, (_, i) => (first + i) * step)
}

/** Crank angles worth a line at this zoom. */
export function angleTicks(zoom: Zoom): number[] {
  const width = zoom.to - zoom.from
  const step = width > 400 ? 90 : width > 150 ? 30 : width > 60 ? 10 : 5
  const first = Math.ceil(zoom.from / step)
  return Array.from({ length: Math.floor(zoom.to / step) - first + 1 }, (_, i) => (first + i) * step)
}
