import { Select } from 'antd'
import { useState } from 'react'
import type { ServiceReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { valveName } from './entries'
import { useWearScale } from './useWearScale'
import { soonest, wearCurves } from './wear'

type Trend = ServiceReport['trends'][number]

/** What wears: how quickly, and when the first valve is at its limit. */
export function Wears({ report }: { report: ServiceReport }) {
  const system = useSessionPart((state) => state.system)
  const [what, setWhat] = useState<string>()
  const shown = report.trends.find((own) => own.what === what) ?? soonest(report.trends)
  if (!shown)
    return (
      <p className="quiet">
        No wear can be told yet: it takes readings of the same valve at two different uses.
      </p>
    )
  return (
    <>
      <div className="wide-table">
        <table className="figures wears" aria-label="What wears">
          <thead>
            <tr>
              <th scope="col">Reading</th>
              <th scope="col">On average</th>
              <th scope="col">First at its limit</th>
              <th scope="col">Has</th>
              <th scope="col">Limit</th>
              <th scope="col">When</th>
            </tr>
          </thead>
          <tbody>
            {report.trends.map((own) => (
              <tr key={own.what} aria-current={own.what === shown.what}>
                <th scope="row">
                  <button type="button" className="link" onClick={() => setWhat(own.what)}>
                    {own.title}
                  </button>
                </th>
                <td>{own.rate[system]}</td>
                <td>{own.valve}</td>
                <td>{own.now_shown[system]}</td>
                <td className="words">
                  {own.limit_shown[system]}
                  <div className="quiet">{own.why}</div>
                </td>
                <td className="words">{own.reached[system]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Lines trend={shown} report={report} />
      <p className="quiet">{report.model}</p>
    </>
  )
}

/** Readings of a valve over use beside those of all others, its line on to its limit. */
function Lines({ trend, report }: { trend: Trend; report: ServiceReport }) {
  const system = useSessionPart((state) => state.system)
  const scale = useWearScale(trend.unit)
  const names = trend.valves.map(valveName)
  const [chosen, setChosen] = useState<string>()
  const valve = chosen !== undefined && names.includes(chosen) ? chosen : trend.valve
  if (!scale) return null
  return (
    <>
      <div className="compare-tools no-print">
        <label>
          {trend.title} of{' '}
          <Select
            size="small"
            aria-label="Valve"
            value={valve}
            popupMatchSelectWidth={false}
            options={names.map((value) => ({ value, label: value }))}
            onChange={setChosen}
          />
        </label>
        {trend.like[system] === '' ? null : <span className="quiet">{trend.like[system]}</span>}
        {trend.begins_as_built ? (
          <span className="quiet">
            Lines begin at what the build says, not at a reading: read the first entry next time.
          </span>
        ) : null}
      </div>
      <Chart
        label={`${trend.title} over use: ${valve}, beside the mean of all others`}
        name={`wear of ${trend.title.toLowerCase()}`}
        curves={wearCurves(trend, valve, report.now ?? 0, scale.factor)}
        x={{ unit: report.unit }}
        y={{ unit: scale.unit }}
        height={220}
      />
    </>
  )
}
