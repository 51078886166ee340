import type { PullsReport } from '../../api/client'
import { useAsked } from '../../model/useAsked'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { inkOf } from '../charts/series'
import { Fit } from '../torque/Fit'
import { curveOf } from '../torque/useCurve'
import { useDrafts } from '../torque/useDrafts'
import { useScales } from '../torque/useScales'
import type { Against } from './against'
import { againstCurves, offCurves, offWords } from './against'
import { useDyno } from './useDyno'

/** What was measured laid over what was predicted, in the plan's air; what is left over speed; the model fitted to it. */
export function Predicted() {
  const report = useDyno('as_planned').data?.pulls
  if (!report) return <p className="quiet">Reading the pulls…</p>
  if (report.rows.length === 0)
    return <p className="quiet">Nothing was measured yet: take in pulls first.</p>
  return <Laid report={report} />
}

function Laid({ report }: { report: PullsReport }) {
  const known = useSessionPart((state) => state.answer?.candidates) ?? []
  const scales = useScales()
  const fit = useAsked('calibration')
  const rows = report.rows.filter(({ candidate }) => known.some(({ id }) => id === candidate))
  const lines = useDrafts(rows.map(({ candidate }) => candidate))
  if (!scales) return null
  const against = rows.flatMap((row, place): Against[] => {
    const curve = curveOf(lines[place]?.data)
    return curve ? [{ row, curve, ink: inkOf(place), speeds: report.speed_rpm }] : []
  })
  const failed = rows.flatMap(({ name }, place) => {
    const line = lines[place]?.data
    return line?.state === 'failed' ? [`${name} has no prediction: ${line.reason}.`] : []
  })
  const { torque } = scales
  return (
    <>
      {against.length < rows.length - failed.length ? (
        <p className="quiet" role="status">
          Drafting what the model predicts…
        </p>
      ) : null}
      {failed.map((text) => (
        <p key={text} className="quiet">
          {text}
        </p>
      ))}
      {against.map((own) => (
        <p key={own.row.candidate}>{offWords(own, torque)}</p>
      ))}
      {against.length > 0 ? (
        <div className="compare-charts">
          <Chart
            label="Measured, and what the model predicts, thin; a draft"
            name="measured and predicted"
            curves={againstCurves(against, torque.factor)}
            x={{ unit: 'rpm' }}
            y={{ unit: torque.unit }}
            height={210}
          />
          <Chart
            label="Measured less predicted"
            name="residuals"
            curves={offCurves(against, torque.factor)}
            x={{ unit: 'rpm' }}
            y={{ unit: torque.unit }}
            height={160}
          />
        </div>
      ) : null}
      <Fit fit={fit} scales={scales} hasPulls />
    </>
  )
}
