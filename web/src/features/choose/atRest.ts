import type { CurveReport, FollowReport } from '../../api/client'
import { percent } from './sweep'

/** How far torque lay from what was computed, as shares: of the average, and the most of a single speed. */
export interface Off {
  readonly average: number | undefined
  readonly most: number
}

/** How far `said` lies from a computed curve; absent where they share no speed. Pure. */
export function offOf(said: FollowReport, computed: CurveReport): Off | undefined {
  const shares = said.speed_rpm.flatMap((rpm, i) => {
    const torque = computed.torque_nm[computed.speed_rpm.indexOf(rpm)]
    return torque === undefined || torque === 0 ? [] : [(said.torque_nm[i] ?? 0) / torque - 1]
  })
  if (shares.length === 0) return undefined
  const average = computed.average_torque_nm
  return {
    average: average ? said.average_torque_nm / average - 1 : undefined,
    most: Math.max(...shares.map(Math.abs)),
  }
}

/** The same in words. Pure. */
export function offWords({ average, most }: Off): string {
  const single = `${percent(most, 2).replace('+', '')} at most at a single speed`
  return average === undefined
    ? `the curves around it were off by ${single}`
    : `the curves around it were off by ${percent(average, 2)} on average, ${single}`
}
