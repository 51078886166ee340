import type { ToleranceReport } from '../../api/client'
import { useLengthScale } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { bandCurves, topOf } from './tolerances'

/** Both gaps over the overlap as bands: what cylinders built with the tolerances come to. */
export function OverlapChart({ overlap }: { overlap: NonNullable<ToleranceReport['overlap']> }) {
  const scale = useLengthScale()
  if (!scale) return null
  const curves = bandCurves(overlap, scale)
  return (
    <Chart
      label="Gap between valve and piston over the overlap, 98 of 100 cylinders within the bands"
      name="gap-bands"
      height={170}
      curves={curves}
      bands={[
        { between: [2, 1], ink: 'intake' },
        { between: [5, 4], ink: 'exhaust' },
      ]}
      x={{ unit: 'deg' }}
      y={{ unit: scale.unit, from: 0, to: topOf(curves) }}
    />
  )
}
