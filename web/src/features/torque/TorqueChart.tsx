import { useMemo } from 'react'
import type { CurveReport } from '../../api/client'
import { Chart } from '../charts/Chart'
import type { OtherCurve, Scales } from './chart'
import { pictureOf } from './chart'
import { speed } from './speed'

interface Props {
  readonly curve: CurveReport
  readonly before: CurveReport | undefined
  readonly others: readonly OtherCurve[]
  readonly scales: Scales
  readonly at: number
}

/** Torque and power over speed in the plan's band, with the error that may be expected. */
export function TorqueChart({ curve, before, others, scales, at }: Props) {
  const picture = useMemo(
    () => pictureOf(curve, before, others, scales),
    [curve, before, others, scales],
  )
  return (
    <Chart
      {...picture}
      label="Torque and power over speed"
      name="torque"
      height={270}
      x={{ unit: 'rpm' }}
      y={{ unit: scales.torque.unit }}
      right={{ unit: scales.power.unit }}
      {...(curve.speed_rpm[at] === undefined ? {} : { at: curve.speed_rpm[at] })}
      onAt={(rpm) => speed.to(rpm)}
    />
  )
}
