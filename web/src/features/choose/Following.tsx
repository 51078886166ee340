import { useMemo } from 'react'
import type { CurveReport, FollowReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import type { Scales } from '../torque/chart'
import { powerOf, torqueOf } from '../torque/chart'
import { useScales } from '../torque/useScales'
import { offOf, offWords } from './atRest'
import { percent } from './sweep'
import { useAtRest } from './useAtRest'

interface Props {
  readonly stands: FollowReport
  /** The same by what was computed along a decision beside the cam. */
  readonly beside: readonly FollowReport[]
  /** Whether `stands` is of the cam as it was a moment ago. */
  readonly isOld: boolean
}

/**
 * Torque and power as it stands, and what a drag does to them in the same frame; at rest the computed curve takes over and says
 * how far the curves around it were.
 */
export function Following({ stands: cams, beside, isOld }: Props) {
  const block = useSessionPart((state) => state.answer?.analysis.candidates[0]?.following)
  const computed = useAtRest()
  const scales = useScales()
  const followed = block?.state === 'done' ? block : undefined
  const along = beside.find(({ made_of }) => made_of === followed?.made_of)
  const stands = along ?? cams
  const live = followed?.made_of === stands.made_of ? followed : undefined
  const moved = live && live.torque_nm.join() !== stands.torque_nm.join() ? live : undefined
  const curves = useMemo(
    () => (scales ? curvesOf(stands, moved, computed, scales) : []),
    [stands, moved, computed, scales],
  )
  if (!scales) return null
  const shown = moved ?? stands
  const said = live ?? (isOld ? undefined : stands)
  // Curves of one cylinder alone are not held against whole engines.
  const off = computed && said?.is_drafted ? offOf(said, computed) : undefined
  return (
    <div className="following">
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
        {computed ? `computed${off ? `: ${offWords(off)}` : ''}` : within(shown)}
      </p>
    </div>
  )
}

/** How far what is said may be off. Pure. */
function within({ off_share, is_inside }: FollowReport): string {
  const guess = is_inside ? '' : '; beyond the cams that were computed it only guesses'
  return `within ${percent(off_share, 2).replace('+', '')} at single speeds${guess}`
}

/** The computed curve in front, or what is said of it until then; dotted behind it the cam before a drag. Pure. */
function curvesOf(
  stands: FollowReport,
  moved: FollowReport | undefined,
  computed: CurveReport | undefined,
  scales: Scales,
): Curve[] {
  const pair = (of: FollowReport | CurveReport, words: string, beside?: true): Curve[] => [
    { name: `torque${words}`, points: torqueOf(of, scales), ink: 'one', ...(beside && { beside }) },
    {
      name: `power${words}`,
      points: powerOf(of, scales),
      ink: 'three',
      right: true,
      ...(beside && { beside }),
    },
  ]
  const front = computed ? pair(computed, ', computed') : pair(moved ?? stands, '')
  return moved ? [...front, ...pair(stands, ' as it stands', true)] : front
}
