import type { CurveReport, PullsReport, Scale } from '../../api/client'
import { signedPercent } from '../../model/figures'
import type { Curve, Ink } from '../charts/series'
import { valueAt } from '../charts/series'

/** What was measured of a combination beside what the model makes of it. Pure. */
export interface Against {
  readonly row: PullsReport['rows'][number]
  readonly curve: CurveReport
  readonly ink: Ink
  /** Speeds of the row. */
  readonly speeds: readonly number[]
}

/** Predicted torque over speed, N m. */
function predicted({ curve }: Against): [number, number][] {
  return curve.speed_rpm.map((rpm, i) => [rpm, curve.torque_nm[i] ?? 0])
}

/** Measured and predicted torque of each. Pure. */
export function againstCurves(all: readonly Against[], factor: number): Curve[] {
  return all.flatMap(({ row, curve, ink, speeds }): Curve[] => [
    {
      name: `${row.name}, measured`,
      points: speeds.map((rpm, i) => [rpm, (row.torque_nm[i] ?? 0) / factor]),
      ink,
    },
    {
      name: `${row.name}, predicted`,
      points: curve.speed_rpm.map((rpm, i) => [rpm, (curve.torque_nm[i] ?? 0) / factor]),
      ink,
      beside: true,
    },
  ])
}

interface Off {
  readonly rpm: number
  readonly nm: number
  readonly share: number
}

function offOf(own: Against): Off[] {
  const points = predicted(own)
  return own.speeds.flatMap((rpm, i): Off[] => {
    const [measured, sound] = [own.row.torque_nm[i], valueAt(points, rpm)]
    return measured === undefined || sound === undefined
      ? []
      : [{ rpm, nm: measured - sound, share: measured / sound - 1 }]
  })
}

/** Measured less predicted over speed. Pure. */
export function offCurves(all: readonly Against[], factor: number): Curve[] {
  const span = all.flatMap(({ speeds }) => speeds)
  const ends = [Math.min(...span), Math.max(...span)]
  return [
    { name: 'predicted', points: ends.map((rpm) => [rpm, 0]), ink: 'plain', beside: true },
    ...all.map((own): Curve => ({
      name: own.row.name,
      points: offOf(own).map(({ rpm, nm }) => [rpm, nm / factor]),
      ink: own.ink,
    })),
  ]
}

/** How far the prediction is off, and where most, in a sentence. Pure. */
export function offWords(own: Against, torque: Scale): string {
  const off = offOf(own)
  const worst = off.reduce<Off | undefined>(
    (most, one) => (most === undefined || Math.abs(one.nm) > Math.abs(most.nm) ? one : most),
    undefined,
  )
  if (!worst) return `${own.row.name} was measured where nothing is predicted.`
  const mean = off.reduce((sum, { share }) => sum + share, 0) / off.length
  const by = (worst.nm / torque.factor).toFixed(0)
  return `${own.row.name} makes ${signedPercent(mean)} against its prediction; most off at ${String(Math.round(worst.rpm))} rpm, by ${by} ${torque.unit}.`
}
