import { useMemo } from 'react'
import type { FollowReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import type { Scales } from '../torque/chart'
import { useScales } from '../torque/useScales'
import { percent } from './sweep'

/** Torque and power as it stands, and what a drag does to them in the same frame. */
export function Following({ stands }: { stands: FollowReport }) {
  const block = useSessionPart((state) => state.answer?.analysis.candidates[0]?.following)
  const scales = useScales()
  const live = block?.state === 'done' ? block : undefined
  const moved =
    live?.made_of === stands.made_of && live.torque_nm.join() !== stands.torque_nm.join()
      ? live
      : undefined
  const curves = useMemo(
    () => (scales ? curvesOf(stands, moved, scales) : []),
    [stands, moved, scales],
  )
  if (!scales) return null
  const shown = moved ?? stands
  return (
    <div>
      <Chart
        label="Torque and power by the cams computed around this one"
        name="choosing"
        height={190}
        curves={curves}
        x={{ unit: 'rpm' }}
        y={{ unit: scales.torque.unit }}
        right={{ unit: scales.power.unit }}
      />
      <p className="quiet" role="status">
        {moved
          ? `${percent(moved.average_torque_nm / stands.average_torque_nm - 1, 2)} average torque, ${percent(moved.peak_power_kw / stands.peak_power_kw - 1, 2)} peak power; `
          : ''}
        within {percent(shown.off_share, 2).replace('+', '')} at single speeds
        {shown.is_inside ? '' : '; beyond the cams that were computed it only guesses'}
      </p>
    </div>
  )
}

/** Both curves, the one that is dragged in front. Pure. */
function curvesOf(stands: FollowReport, moved: FollowReport | undefined, scales: Scales): Curve[] {
  const torque = (of: FollowReport) =>
    of.speed_rpm.map((rpm, i): [number, number] => [
      rpm,
      (of.torque_nm[i] ?? 0) / scales.torque.factor,
    ])
  const power = (of: FollowReport) =>
    of.speed_rpm.map((rpm, i): [number, number] => [
      rpm,
      ((of.power_kw[i] ?? 0) * 1e3) / scales.power.factor,
    ])
  const front = moved ?? stands
  const own: Curve[] = [
    { name: 'torque', points: torque(front), ink: 'one' },
    { name: 'power', points: power(front), ink: 'three', right: true },
  ]
  const before: Curve[] = [
    { name: 'torque as it stands', points: torque(stands), ink: 'one', beside: true },
    {
      name: 'power as it stands',
      points: power(stands),
      ink: 'three',
      right: true,
      beside: true,
    },
  ]
  return moved ? [...own, ...before] : own
}
