import { Select } from 'antd'
import { useMemo, useState } from 'react'
import type { MotionFitReport } from '../../api/client'
import { plain } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'

type Trace = MotionFitReport['traces'][number]
type Constant = MotionFitReport['constants'][number]
type Limit = MotionFitReport['limits'][number]

/** What measured motion came to: the answer, one trace beside both trains, the constants in their ranges, the limits it moves. */
export function MeasuredFit({ report }: { report: MotionFitReport }) {
  const system = useSessionPart((state) => state.system)
  const [place, setPlace] = useState(report.traces.length - 1)
  const trace = report.traces[place] ?? report.traces[0]
  return (
    <>
      <p>{report.says[system]}</p>
      {trace ? (
        <>
          <Select
            size="small"
            aria-label="Trace looked at"
            value={place}
            onChange={setPlace}
            options={report.traces.map((own, at) => ({
              value: at,
              label: `${own.side} at ${plain(own.rpm)} rpm`,
            }))}
            popupMatchSelectWidth={false}
          />
          <Apart trace={trace} />
        </>
      ) : null}
      <div className="measured-tables">
        <Constants constants={report.constants} />
        <Limits limits={report.limits} />
      </div>
      <p className="quiet">
        The bands with it are what these constants leave open. What the model itself is off comes on
        top: believe the lower end, and listen to the engine.
      </p>
    </>
  )
}

function Apart({ trace }: { trace: Trace }) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  const curves = useMemo((): readonly Curve[] => {
    if (!scales) return []
    const scale = 1e-3 / (system === 'inch' ? scales.length_inch : scales.length_metric).factor
    const over = (values: readonly number[]) =>
      values.map((value, i): [number, number] => [trace.crank_deg[i] ?? 0, value * scale])
    return [
      { name: 'over the usual train', ink: 'plain', points: over(trace.over_usual_mm) },
      { name: 'over the fitted train', ink: trace.side, points: over(trace.over_fitted_mm) },
      {
        name: 'measured lift',
        ink: 'three',
        beside: true,
        right: true,
        points: over(trace.measured_mm),
      },
    ]
  }, [trace, scales, system])
  if (!scales) return null
  const unit = (system === 'inch' ? scales.length_inch : scales.length_metric).unit
  return (
    <Chart
      label={`Measured lift of the ${trace.side} valve at ${plain(trace.rpm)} rpm over what is computed; ${trace.left[0]?.[system] ?? ''} off before, ${trace.left[1]?.[system] ?? ''} after`}
      name={`measured-${trace.id}`}
      curves={curves}
      x={{ unit: 'crank deg from firing top' }}
      y={{ unit }}
      right={{ unit, from: 0 }}
      height={220}
    />
  )
}

const WIDE = 90

function Constants({ constants }: { constants: readonly Constant[] }) {
  return (
    <table className="figures" aria-label="What nobody measures, as it was found">
      <thead>
        <tr>
          <th scope="col">What nobody measures</th>
          <th scope="col">Found</th>
          <th scope="col">Usual</th>
          <th scope="col">In its range</th>
        </tr>
      </thead>
      <tbody>
        {constants.map(({ label, found, usual, range, place, learned }) => (
          <tr key={label}>
            <th scope="row">{label}</th>
            <td>{learned ? found : <span className="quiet">not seen</span>}</td>
            <td>{usual}</td>
            <td>
              <svg
                width={WIDE}
                height={12}
                role="img"
                aria-label={`${range[0] ?? ''} to ${range[1] ?? ''}${learned ? '' : ', anywhere in it'}`}
              >
                <title>{`${range[0] ?? ''} to ${range[1] ?? ''}`}</title>
                <line className="range-line" x1={0} x2={WIDE} y1={6} y2={6} />
                {learned ? (
                  <>
                    <line
                      className="range-held"
                      x1={(place[1] ?? 0) * WIDE}
                      x2={(place[2] ?? 1) * WIDE}
                      y1={6}
                      y2={6}
                    />
                    <circle className="range-found" cx={(place[0] ?? 0) * WIDE} cy={6} r={3} />
                  </>
                ) : null}
              </svg>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Limits({ limits }: { limits: readonly Limit[] }) {
  const band = (rpm: number | null | undefined, [low, high]: readonly number[]) =>
    typeof rpm === 'number' ? `${plain(rpm)} (${plain(low ?? 0)} to ${plain(high ?? 0)})` : 'never'
  return (
    <table className="figures" aria-label="Limiting speeds without it and with it">
      <thead>
        <tr>
          <th scope="col">Loses control at, rpm</th>
          <th scope="col">Without it</th>
          <th scope="col">With it</th>
        </tr>
      </thead>
      <tbody>
        {limits.map((own) => (
          <tr key={`${own.candidate} ${own.side}`}>
            <th scope="row">
              {own.name}, {own.side}
              {own.apart.length > 0 ? (
                <span className="quiet" title={`Not carried over: ${own.apart.join(', ')}`}>
                  {' '}
                  other parts
                </span>
              ) : null}
            </th>
            <td>{band(own.before_rpm, own.before_band_rpm)}</td>
            <td>{band(own.after_rpm, own.after_band_rpm)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
