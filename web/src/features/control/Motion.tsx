import { useMemo } from 'react'
import type { DynamicsSide } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import { fromFullLift } from './map'

interface Props {
  readonly side: DynamicsSide
  readonly name: 'intake' | 'exhaust'
  readonly at: number
}

/** Lift as designed and as it is at one speed, over the crank from full lift, and the load on the lobe. */
export function Motion({ side, name, at }: Props) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  const curves = useMemo((): readonly Curve[] => {
    if (!scales) return []
    const length = system === 'inch' ? scales.length_inch : scales.length_metric
    const force = system === 'inch' ? scales.force_inch : scales.force_metric
    const over = (values: readonly number[], scale: number) =>
      values
        .map((value, column): [number, number] => [fromFullLift(side, column), value * scale])
        .filter(([deg]) => deg >= -180 && deg <= 240)
    const lift = 1e-3 / length.factor
    return [
      { name: 'rigid', ink: 'plain', beside: true, points: over(side.rigid_mm, lift) },
      { name: 'real', ink: name, points: over(side.valve_mm[at] ?? [], lift) },
      {
        name: `load on the lobe, ${force.unit}`,
        ink: 'three',
        right: true,
        points: over(side.contact_n[at] ?? [], 1 / force.factor).filter(([, load]) => load >= 0),
      },
    ]
  }, [side, name, at, scales, system])
  if (!scales) return null
  const length = system === 'inch' ? scales.length_inch : scales.length_metric
  const force = system === 'inch' ? scales.force_inch : scales.force_metric
  return (
    <Chart
      label={`Lift of the ${name} valve at ${String(side.speed_rpm[at] ?? 0)} rpm`}
      name={`${name}-motion`}
      curves={curves}
      x={{ unit: 'crank deg from full lift' }}
      y={{ unit: length.unit, from: 0 }}
      right={{ unit: force.unit, from: 0 }}
      height={250}
    />
  )
}
