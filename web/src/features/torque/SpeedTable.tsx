import type { CurveReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { COLUMNS, cellOf } from './columns'
import { speed } from './speed'

/** Everything computed at every speed; the one looked at is marked. */
export function SpeedTable({ curve, at }: { curve: CurveReport; at: number }) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  if (!scales) return null
  const columns = COLUMNS.flatMap((column) => {
    const values = column.values(curve, system)
    return values ? [{ ...column, values }] : []
  })
  return (
    <details className="folded">
      <summary>Every speed in figures</summary>
      <div className="wide">
        <table className="figures">
          <thead>
            <tr>
              <td />
              {curve.speed_rpm.map((rpm, place) => (
                <th key={rpm} scope="col" aria-current={place === at}>
                  <button type="button" className="link" onClick={() => speed.to(rpm)}>
                    {Math.round(rpm)}
                  </button>
                  {curve.converged[place] === true ? null : (
                    <span
                      className="fails"
                      title={`The last cycle still changed by ${(100 * (curve.change[place] ?? 0)).toFixed(1)} %`}
                    >
                      {' '}
                      not settled
                    </span>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {columns.map((column) => (
              <tr key={column.label}>
                <th scope="row" title={column.help}>
                  {column.label} <span className="quiet">{column.unit(scales, system)}</span>
                </th>
                {column.values.map((value, place) => (
                  <td key={curve.speed_rpm[place]}>{cellOf(column, value, scales, system)}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}
