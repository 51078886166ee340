import type { DecisionReport, Edit, FieldTexts } from '../../api/client'
import { signedPercent } from '../../model/figures'
import { nearestTo } from '../charts/series'

/** Room around the picture of a decision: axis at the left, words at the right, values below, limits above. */
export const ROOM = { left: 44, right: 78, above: 26, below: 30 }

/** Where things of a decision's picture lie. */
export interface Frame {
  readonly width: number
  readonly height: number
  readonly from: number
  readonly to: number
  /** Shares at the lower and upper edge. */
  readonly low: number
  readonly high: number
}

/** The frame that holds every line of a decision, zero among them. Pure. */
export function frameOf(decision: DecisionReport, width: number, height: number): Frame {
  const all = [...decision.low, ...decision.middle, ...decision.high, ...decision.average_torque, 0]
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const air = Math.max(0.08 * (high - low), 0.001)
  return {
    width,
    height,
    from: decision.value[0] ?? 0,
    to: decision.value.at(-1) ?? 1,
    low: low - air,
    high: high + air,
  }
}

export function xOf(frame: Frame, value: number): number {
  const span = frame.width - ROOM.left - ROOM.right
  return ROOM.left + (span * (value - frame.from)) / Math.max(frame.to - frame.from, 1e-9)
}

export function yOf(frame: Frame, share: number): number {
  const span = frame.height - ROOM.above - ROOM.below
  return ROOM.above + (span * (frame.high - share)) / Math.max(frame.high - frame.low, 1e-9)
}

/** The place of the value nearest to `x` in the picture. Pure. */
export function placeAt(frame: Frame, values: readonly number[], x: number): number {
  return nearestTo(
    x,
    values.map((value) => xOf(frame, value)),
  )
}

/** A line through shares as a path. Pure. */
export function lineOf(frame: Frame, values: readonly number[], shares: readonly number[]): string {
  const at = (i: number) =>
    `${xOf(frame, values[i] ?? 0).toFixed(1)},${yOf(frame, shares[i] ?? 0).toFixed(1)}`
  return shares.map((_, i) => `${i === 0 ? 'M' : 'L'}${at(i)}`).join('')
}

/** Round shares between the edges of a frame: three to six of them. Pure. */
export function roundShares(frame: Frame): number[] {
  const steps = [0.0005, 0.001, 0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2]
  const step = steps.find((each) => (frame.high - frame.low) / each <= 8) ?? 0.5
  const first = Math.ceil(frame.low / step)
  const count = Math.floor(frame.high / step) - first + 1
  return Array.from({ length: Math.max(count, 0) }, (_, i) => (first + i) * step)
}

/** Words at the ends of lines, moved apart where they would lie on each other. Pure. */
export function apart(heights: readonly number[], least: number): number[] {
  const order = heights.map((_, i) => i).sort((a, b) => (heights[a] ?? 0) - (heights[b] ?? 0))
  const placed = [...heights]
  order.forEach((own, place) => {
    const before = order[place - 1]
    const floor = before === undefined ? -Infinity : (placed[before] ?? 0) + least
    placed[own] = Math.max(heights[own] ?? 0, floor)
  })
  return placed
}

/** A share as per cent with its sign; what rounds to nothing is nothing. Pure. */
export function percent(share: number, decimals = 1): string {
  const isNothing = Number((Math.abs(share) * 100).toFixed(decimals)) === 0
  return isNothing ? '0 %' : signedPercent(share, decimals)
}

const EVENTS = ['intake_closes', 'exhaust_opens', 'intake_opens', 'exhaust_closes'] as const
const CARD = [
  'intake_duration',
  'exhaust_duration',
  'lobe_separation',
  'intake_centreline',
] as const

interface Written {
  readonly candidate: string
  readonly index: number
  readonly system: 'inch' | 'metric'
  /** What is written where for each value, of a decision beside the cam. */
  readonly fields: readonly FieldTexts[]
}

/**
 * The edits that make a decision so: an event or a number of the card typed, the lift of a lobe, or what the core says of
 * others. Pure.
 */
export function editsOf(
  decision: DecisionReport,
  place: number,
  { candidate, index, system, fields }: Written,
): Edit[] {
  const name = decision.decision
  const shown = decision.value_shown[place]
  if (shown === undefined) return []
  const degrees = `${String(decision.value[place] ?? 0)} deg`
  const event = EVENTS.find((each) => each === name)
  if (event) return [{ type_event: { candidate, event, text: degrees } }]
  const number = CARD.find((each) => each === name)
  if (number) return [{ type_card: { candidate, number, text: degrees } }]
  if (name === 'intake_lift' || name === 'exhaust_lift') {
    const side = name === 'intake_lift' ? 'intake' : 'exhaust'
    const field = `candidates[${String(index)}].cam.${side}.lobe_lift`
    return [{ set: { field, text: shown[system] } }]
  }
  return fields.map(({ field, text }) => ({ set: { field, text: text[place] ?? '' } }))
}
