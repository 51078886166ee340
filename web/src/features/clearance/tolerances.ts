import type { Scale, ToleranceLimit, ToleranceReport } from '../../api/client'
import type { Curve } from '../charts/series'

/** The picture of a spread: bars and the need on one axis from 0 to 1. */
export interface Picture {
  readonly bars: readonly { readonly at: number; readonly width: number; readonly height: number }[]
  /** Where the bounds lie. */
  readonly needs: readonly number[]
  /** Whether a place is beyond a bound. */
  readonly fails: (at: number) => boolean
}

/** A spread with what is needed, both in view. Pure. */
export function pictureOf(limit: ToleranceLimit): Picture {
  const { from, width, bars } = limit
  const [min, max] = [limit.need_min ?? undefined, limit.need_max ?? undefined]
  const bounds = [min, max].filter((bound) => bound !== undefined)
  const low = Math.min(from, ...bounds)
  const high = Math.max(from + width * bars.length, ...bounds)
  const pad = 0.04 * (high - low || 1)
  const span = high - low + 2 * pad
  const place = (value: number) => (value - low + pad) / span
  const most = Math.max(...bars, 1e-9)
  const value = (at: number) => at * span + low - pad
  return {
    bars: bars.map((share, i) => ({
      at: place(from + i * width),
      width: width / span,
      height: share / most,
    })),
    needs: bounds.map(place),
    fails: (at) => (min !== undefined && value(at) < min) || (max !== undefined && value(at) > max),
  }
}

/** A share of engines in as few digits as it is known to. Pure. */
export function shareOf(share: number): string {
  if (share === 0) return '0'
  if (share < 0.0001) return 'under .01 %'
  if (share < 0.01) return `${(100 * share).toFixed(2)} %`
  return `${(100 * share).toFixed(share < 0.1 ? 1 : 0)} %`
}

/** Limits worth a look: those that can fail, and the next few, the likeliest first. Pure. */
export function shownLimits(limits: readonly ToleranceLimit[], isAll: boolean): ToleranceLimit[] {
  if (isAll) return [...limits]
  const can = limits.filter((limit) => limit.fails_any_share > 0 && !limit.is_advice)
  return can.length > 0 ? can : limits.slice(0, 4)
}

/** Each gap's middle, and the edges of its band, over the crank. Pure. */
export function bandCurves(
  overlap: NonNullable<ToleranceReport['overlap']>,
  scale: Scale,
): Curve[] {
  return (['intake', 'exhaust'] as const).flatMap((side) => {
    const own = overlap[side]
    const points = (mm: readonly number[]) =>
      overlap.crank_deg.map((deg, i) => [deg, ((mm[i] ?? 0) * 1e-3) / scale.factor] as const)
    return [
      { name: side, points: points(own.middle_mm), ink: side },
      { name: `${side}, low`, points: points(own.low_mm), ink: side, quiet: true, beside: true },
      { name: `${side}, high`, points: points(own.high_mm), ink: side, quiet: true, beside: true },
    ]
  })
}

/** How high gaps are drawn: the widest least gap of a curve and as much again, since what is far is of no interest. Pure. */
export function topOf(curves: readonly Curve[]): number {
  return 2 * Math.max(...curves.map(({ points }) => Math.min(...points.map(([, gap]) => gap))))
}
