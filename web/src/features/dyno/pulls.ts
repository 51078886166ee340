import type {
  Edit,
  Mapped,
  PullColumn,
  PullFileReport,
  PullReport,
  PullsReport,
} from '../../api/client'
import type { Holds } from '../../api/client'
import type { Band, Curve, Ink, Stretch } from '../charts/series'
import { inkOf } from '../charts/series'

/** Pulls as curves and words. Pure. */

/** What a column may hold, as people call it. */
export const HOLDS: readonly { readonly value: Holds; readonly label: string }[] = [
  { value: 'nothing', label: 'not wanted' },
  { value: 'speed', label: 'engine speed' },
  { value: 'torque', label: 'torque' },
  { value: 'power', label: 'power' },
  { value: 'air_fuel_ratio', label: 'air-fuel ratio' },
  { value: 'oil_temperature', label: 'oil temperature' },
  { value: 'water_temperature', label: 'coolant temperature' },
  { value: 'air_temperature', label: 'air temperature' },
  { value: 'exhaust_temperature', label: 'exhaust temperature' },
  { value: 'oil_pressure', label: 'oil pressure' },
  { value: 'manifold_pressure', label: 'manifold pressure' },
  { value: 'spark', label: 'spark' },
]

/** What the columns of a file hold, as it is asked for and remembered. Pure. */
export function mappedOf(columns: readonly PullColumn[]): Mapped[] {
  return columns.map(({ holds, unit }) => ({ holds, unit }))
}

/** The same with another word for one column; what held it before holds nothing any more. Pure. */
export function holdingAnother(
  columns: readonly PullColumn[],
  place: number,
  holds: Holds,
): Mapped[] {
  return columns.map((own, at) => {
    if (at === place) return { holds, unit: '' }
    return own.holds === holds && holds !== 'nothing'
      ? { holds: 'nothing', unit: '' }
      : { holds: own.holds, unit: own.unit }
  })
}

/** The same with another unit for one column. Pure. */
export function inAnotherUnit(
  columns: readonly PullColumn[],
  place: number,
  unit: string,
): Mapped[] {
  return mappedOf(columns).map((own, at) => (at === place ? { ...own, unit } : own))
}

type Points = Pick<PullReport, 'speed_rpm' | 'torque_nm' | 'points'>

/** What of a pull counts as a line, and what does not as points. Pure. */
export function trimmedCurves(name: string, own: Points, factor: number, ink: Ink): Curve[] {
  const at = (counts: boolean) =>
    own.speed_rpm.flatMap((rpm, i): [number, number][] =>
      (own.points[i] === 'counted') === counts ? [[rpm, (own.torque_nm[i] ?? 0) / factor]] : [],
    )
  const left = at(false)
  return [
    { name, points: rising(at(true)), ink },
    ...(left.length > 0
      ? [{ name: `${name}, not counted`, points: left, ink: 'pulled', dots: true } as const]
      : []),
  ]
}

/** One point a speed, in rising speed: a line needs that. */
function rising(points: readonly (readonly [number, number])[]): [number, number][] {
  return [...new Map(points.map(([x, y]) => [x, y]))].sort(([a], [b]) => a - b)
}

/** Every run of a file, what counts and what does not. Pure. */
export function runCurves(runs: PullFileReport['runs'], factor: number): Curve[] {
  return runs.flatMap((run, place) =>
    trimmedCurves(`run ${String(place + 1)}`, run, factor, inkOf(place)),
  )
}

interface Picture {
  readonly curves: Curve[]
  readonly bands: Band[]
}

/** Mean torque of each combination with the band that holds the mean. Pure. */
export function meanCurves({ rows, speed_rpm }: PullsReport, factor: number): Picture {
  const curves: Curve[] = []
  const bands: Band[] = []
  rows.forEach((row, place) => {
    const ink = inkOf(place)
    const edge = (sign: number): [number, number][] =>
      speed_rpm.flatMap((rpm, i): [number, number][] => {
        const doubt = row.doubt_nm[i]
        return typeof doubt === 'number'
          ? [[rpm, ((row.torque_nm[i] ?? 0) + sign * doubt) / factor]]
          : []
      })
    const [most, least] = [edge(1), edge(-1)]
    if (most.length > 0) {
      bands.push({ between: [curves.length, curves.length + 1], ink })
      curves.push(
        { name: `${row.name} at most`, points: most, ink, quiet: true },
        { name: `${row.name} at least`, points: least, ink, quiet: true },
      )
    }
    const points = speed_rpm.map((rpm, i): [number, number] => [
      rpm,
      (row.torque_nm[i] ?? 0) / factor,
    ])
    curves.push({ name: row.name, points, ink })
  })
  return { curves, bands }
}

/** What each combination has over the baseline, with the band that holds all speeds at once. Pure. */
export function differenceCurves(
  { over_speed, speed_rpm, rows }: PullsReport,
  factor: number,
): Picture & { readonly stretches: Stretch[] } {
  const curves: Curve[] = []
  const bands: Band[] = []
  const [first, last] = [speed_rpm[0] ?? 0, speed_rpm.at(-1) ?? 0]
  curves.push({
    name: rows[0]?.name ?? '',
    points: [
      [first, 0],
      [last, 0],
    ],
    ink: inkOf(0),
  })
  const stretches: Stretch[] = []
  over_speed.forEach((own, nth) => {
    const ink = inkOf(nth + 1)
    const name = rows.find(({ candidate }) => candidate === own.a)?.name ?? own.a
    const line = (sign: number): [number, number][] =>
      speed_rpm.map((rpm, i) => [
        rpm,
        ((own.by_nm[i] ?? 0) + sign * (own.together_nm[i] ?? 0)) / factor,
      ])
    bands.push({ between: [curves.length, curves.length + 1], ink })
    curves.push(
      { name: `${name} at most`, points: line(1), ink, quiet: true },
      { name: `${name} at least`, points: line(-1), ink, quiet: true },
      { name, points: line(0), ink },
    )
    if (over_speed.length === 1)
      stretches.push(
        ...own.real_rpm.map(([from = 0, to = 0]) => ({ from, to, kind: 'wanted' as const })),
      )
  })
  return { curves, bands, stretches }
}

/** The place in its day that a pull taken over next has. Pure. */
export function nextDrawn(
  pulls: readonly Pick<PullReport, 'day' | 'drawn'>[],
  day: string,
): number {
  return 1 + Math.max(0, ...pulls.filter((own) => own.day === day).map((own) => own.drawn))
}

/** The edit that takes a pull of a live dyno in: its columns are what its heading says, as the server read them. Pure. */
export function takenLive(
  file: string,
  candidate: string,
  day: string,
  pulls: readonly Pick<PullReport, 'day' | 'drawn'>[],
): Edit {
  return {
    take_pulls: {
      text: file,
      mapped: [],
      runs: [0],
      drawn: nextDrawn(pulls, day),
      shared: { candidate, day, level: '', air: '', dyno: '', file: '' },
    },
  }
}
