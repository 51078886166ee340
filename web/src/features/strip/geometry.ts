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

/** Decimals that tell neighbouring ticks apart. */
export function decimalsOf(marks: readonly number[]): number {
  const step = Math.abs((marks[1] ?? 1) - (marks[0] ?? 0))
  return step > 0 ? Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)) : 0
}

/** Crank angles worth a line at this zoom. */
export function angleTicks(zoom: Zoom): number[] {
  const width = zoom.to - zoom.from
  const step = width > 400 ? 90 : width > 150 ? 30 : width > 60 ? 10 : 5
  const first = Math.ceil(zoom.from / step)
  return Array.from(
    { length: Math.floor(zoom.to / step) - first + 1 },
    (_, i) => (first + i) * step,
  )
}
