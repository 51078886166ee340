import { numberIn } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { COLUMNS, cellOf } from './columns'
import type { OtherCurve } from './chart'
import { inSentence } from '../fields/labels'

/** Boost and drive pressure of every level over speed, beside the torque they make. */
export function BoostTable({ curves }: { curves: readonly OtherCurve[] }) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  const first = curves[0]?.curve
  if (!scales || !first) return null
  const torque = system === 'inch' ? scales.torque_inch : scales.torque_metric
  const rows = curves.flatMap(({ name, curve }) => [
    {
      title: `${name}: torque`,
      unit: torque.unit,
      values: curve.torque_nm.map((nm) => numberIn(nm, torque)),
    },
    ...COLUMNS.filter((column) => column.label === 'Boost' || column.label === 'Drive').flatMap(
      (column) => {
        const values = column.values(curve, system)
        return values
          ? [
              {
                title: `${name}: ${inSentence(column.label)}`,
                unit: column.unit(scales, system),
                values: values.map((value) => cellOf(column, value, scales, system)),
              },
            ]
          : []
      },
    ),
  ])
  return (
    <div className="wide">
      <table className="figures">
        <thead>
          <tr>
            <th scope="col">Boost levels</th>
            {first.speed_rpm.map((rpm) => (
              <th key={rpm} scope="col">
                {Math.round(rpm)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.title}>
              <th scope="row">
                {row.title} <span className="quiet">{row.unit}</span>
              </th>
              {row.values.map((text, place) => (
                <td key={first.speed_rpm[place]}>{text}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
