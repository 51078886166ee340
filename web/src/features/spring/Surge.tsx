import { useMemo } from 'react'
import type { SpringReport } from '../../api/client'
import { plain } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import type { SideName } from '../motion/useTrain'
import { SIDES } from '../motion/useTrain'

type Meets = SpringReport['surge_meets'][number]

/** Where harmonics of the lift meet the springs' first wave: a spike for each, as high as the harmonic is strong. */
export function Surge({ spring }: { spring: Readonly<Record<SideName, SpringReport>> }) {
  const marks = useMarks()
  const curves = useMemo(
    () =>
      SIDES.map((side): Curve => ({
        name: side,
        ink: side,
        points: spikes(spring[side].surge_meets),
      })),
    [spring],
  )
  if (curves.every((curve) => curve.points.length === 0)) return null
  return (
    <figure className="plot">
      <Chart
        label="Harmonics of the lift that meet the springs’ first wave"
        name="spring-surge"
        curves={curves}
        x={{ unit: 'rpm' }}
        y={{ unit: 'µm of lift', from: 0 }}
        marks={marks}
        height={180}
      />
      <figcaption className="quiet">{told(spring.intake.surge_meets)}</figcaption>
    </figure>
  )
}

/** Shift and missed shift, where the plan says. */
function useMarks() {
  const limits = useSessionPart((state) => state.answer?.analysis.candidates[0]?.limits)
  const surge = limits?.find((limit) => limit.id === 'limiting_speed' || limit.id === 'hand_check')
  const missed = surge?.need.min
  return typeof missed === 'number' ? [{ x: missed, text: 'missed shift' }] : []
}

/** Each meeting as a spike that leaves the speeds between alone. Pure. */
export function spikes(meets: readonly Meets[]): [number, number][] {
  const rising = [...meets].sort((a, b) => a.rpm - b.rpm)
  return rising.flatMap(({ rpm, lift_um }): [number, number][] => [
    [rpm * 0.997, 0],
    [rpm, lift_um],
    [rpm * 1.003, 0],
  ])
}

/** The strongest one in words. Pure. */
function told(meets: readonly Meets[]): string {
  const [first, ...rest] = meets
  if (!first)
    return 'No harmonic up to the fortieth meets the first wave near the speeds of the plan.'
  const worst = rest.reduce((most, meet) => (meet.lift_um > most.lift_um ? meet : most), first)
  return `The lower the harmonic, the harder it drives the coils: on the intake harmonic ${plain(worst.order)} of the lift meets the first wave at ${plain(worst.rpm)} rpm with ${plain(worst.lift_um, 1)} µm.`
}
