import type { PhasingReport } from '../../api/client'
import { plain } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'

/** What keyways and bushings of the timing set reach, and what stands there. */
export function TimingSteps({
  report,
  onLook,
}: {
  report: PhasingReport
  onLook: (deg: number) => void
}) {
  const scale = useSessionPart(({ answer, system }) => {
    const scales = answer?.analysis.scales
    return system === 'inch' ? scales?.torque_inch : scales?.torque_metric
  })
  const torque = (nm: number | null | undefined) => {
    if (typeof nm !== 'number' || !scale) return ''
    return `${nm < 0 ? '−' : '+'}${plain(Math.abs(nm) / scale.factor, 1)} ${scale.unit}`
  }
  return (
    <table className="figures">
      <caption>
        Keyways and bushings
        {report.steps_assumed ? (
          <span className="quiet"> usual ones, assumed: say yours below</span>
        ) : null}
      </caption>
      <tbody>
        {report.steps.map((step) => (
          <tr key={step.advance_deg}>
            <th scope="row">
              <button type="button" className="link" onClick={() => onLook(step.advance_deg)}>
                {step.advance_deg > 0 ? '+' : ''}
                {plain(step.advance_deg, 1)} deg
              </button>
            </th>
            <td>intake at {step.intake_centreline}</td>
            <td>{torque(step.average_torque_nm)}</td>
            <td>
              {step.in_window
                ? 'in the window'
                : step.fails.length > 0
                  ? `${step.fails.join(', ')} fails`
                  : 'clear now, not with the stretch to come'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
