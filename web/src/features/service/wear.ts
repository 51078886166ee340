import type { ServiceReport } from '../../api/client'
import { valveName } from './entries'
import type { Curve } from '../charts/series'

/** What wears, as curves. Pure. */

type Trend = ServiceReport['trends'][number]

/** The trend whose limit comes first; the first of all where none does. Pure. */
export function soonest(trends: readonly Trend[]): Trend | undefined {
  const at = ({ reached_at }: Trend) => reached_at ?? Infinity
  return [...trends].sort((a, b) => at(a) - at(b))[0]
}

/** Readings of all valves, those of one with its line on to its limit, and the limit. Pure. */
export function wearCurves(trend: Trend, valve: string, now: number, factor: number): Curve[] {
  const named = trend.valves.map((own) => ({ ...own, name: valveName(own) }))
  const points = (own: (typeof named)[number]): [number, number][] =>
    own.at.map((at, i) => [at, (own.read[i] ?? 0) / factor])
  const looked = named.find(({ name }) => name === valve)
  const others = named.filter(({ name }) => name !== valve).flatMap(points)
  if (!looked) return []
  // On to its limit, but not so far that the readings are a dot at the left.
  const wanted = looked.reached_at ?? 1.5 * now
  const end = Math.max(now, Math.min(wanted, 4 * now))
  const from = Math.min(...looked.at)
  const rate = looked.at.length > 0 ? slopeOf(looked.now, looked.limit, looked.reached_at, now) : 0
  const line = (at: number): [number, number] => [at, (looked.now + rate * (at - now)) / factor]
  return [
    { name: 'mean of the others', points: mean(others), ink: 'plain', dots: true },
    { name: valve, points: points(looked), ink: 'one', dots: true },
    { name: 'its line', points: [line(from), line(end)], ink: 'one' },
    {
      name: 'limit',
      points: [
        [from, looked.limit / factor],
        [end, looked.limit / factor],
      ],
      ink: 'two',
      beside: true,
    },
  ]
}

/** What a line changes by in a unit of use, from where it is now and where it meets its limit. Pure. */
function slopeOf(
  has: number,
  limit: number,
  reached: number | null | undefined,
  now: number,
): number {
  return typeof reached !== 'number' || reached === now ? 0 : (limit - has) / (reached - now)
}

/** One point for each use: a chart has one value at an abscissa. Pure. */
function mean(points: readonly [number, number][]): [number, number][] {
  const uses = [...new Set(points.map(([at]) => at))].sort((a, b) => a - b)
  return uses.map((at) => {
    const own = points.filter(([use]) => use === at)
    return [at, own.reduce((sum, [, read]) => sum + read, 0) / own.length]
  })
}
