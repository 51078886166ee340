import { Select } from 'antd'
import type { DifferenceReport, PullReport, PullsReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { useScales } from '../torque/useScales'
import type { AirWord } from './airs'
import { AIRS } from './airs'
import { differenceCurves, meanCurves } from './pulls'

interface Props {
  readonly report: PullsReport
  readonly air: AirWord
  readonly onAir: (air: AirWord) => void
}

/** What differs between combinations, how sure that is, and what would make it surer. */
export function Compare({ report, air, onAir }: Props) {
  const system = useSessionPart((state) => state.system)
  const scales = useScales()
  if (report.rows.length === 0)
    return <p className="quiet">Nothing can be compared yet: take in pulls first.</p>
  const [from = 0, to = 0] = report.band_rpm ?? []
  return (
    <>
      <div className="compare-tools no-print">
        <label>
          Figures in{' '}
          <Select<AirWord>
            size="small"
            aria-label="Figures in"
            value={air}
            options={[...AIRS]}
            onChange={onAir}
          />
        </label>
        <span className="quiet">
          Averages over {Math.round(from)} to {Math.round(to)} rpm
          {report.repeats ? `; a pull repeats to ${report.repeats.shown[system]}` : ''}
          {report.drift_per_pull
            ? `; drift ${report.drift_per_pull.shown[system]}${report.drift_per_pull.is_real ? '' : ', none beyond chance'}`
            : ''}
          .
        </span>
      </div>
      <Flags report={report} />
      {scales ? (
        <div className="compare-charts">
          <Chart
            label="Mean torque of each combination, with what its mean may be off by on these days"
            name="pulls"
            {...meanCurves(report, scales.torque.factor)}
            x={{ unit: 'rpm' }}
            y={{ unit: scales.torque.unit }}
            height={210}
          />
          {report.over_speed.length > 0 ? (
            <Chart
              label={`Torque over ${report.rows[0]?.name ?? ''}, with the band that holds all speeds at once`}
              name="differences of pulls"
              {...differenceCurves(report, scales.torque.factor)}
              x={{ unit: 'rpm' }}
              y={{ unit: scales.torque.unit }}
              height={170}
            />
          ) : null}
        </div>
      ) : null}
      {report.over_speed.map(({ a, says }) => (
        <p key={a}>{says[system]}</p>
      ))}
      {report.scatter.map((says) => (
        <p key={says.inch}>{says[system]}</p>
      ))}
      <Differences report={report} />
      <Board report={report} />
      {report.surer.length > 0 ? (
        <section aria-label="What would make it sure">
          <h3>What would make it sure</h3>
          <ul>
            {report.surer.map((own) => (
              <li key={own.metric}>{own[system]}</li>
            ))}
          </ul>
        </section>
      ) : null}
      <p className="quiet">{report.model}</p>
    </>
  )
}

function Flags({ report }: { report: PullsReport }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  if (report.flags.length === 0) return null
  const counted = (pull: string) => report.pulls.find((own) => own.id === pull && own.counted)
  const leaveOut = ({ field }: PullReport, why: string) => {
    session.edit({ set: { field: `${field}.left_out`, text: why.slice(0, 200) } })
  }
  return (
    <ul className="pull-flags" aria-label="Odd pulls">
      {report.flags.map(({ pull, kind, why }) => {
        const own = counted(pull)
        return (
          <li key={`${pull} ${kind}`}>
            <b>{pull}</b>: {why[system]}{' '}
            {own ? (
              <button type="button" className="link" onClick={() => leaveOut(own, why[system])}>
                Leave it out
              </button>
            ) : null}
          </li>
        )
      })}
    </ul>
  )
}

const WORDS: Record<DifferenceReport['believed'], string> = {
  more: 'more',
  less: 'less',
  not_shown: 'not shown',
}

function Differences({ report }: { report: PullsReport }) {
  const system = useSessionPart((state) => state.system)
  if (report.differences.length === 0) return null
  return (
    <div className="wide-table">
      <table className="figures">
        <thead>
          <tr>
            <th scope="col">Against {report.rows[0]?.name}</th>
            <th scope="col">Difference, 95 of 100</th>
            <th scope="col">Sure that it is more</th>
            <th scope="col">Believe</th>
          </tr>
        </thead>
        <tbody>
          {report.differences.map((own) => (
            <tr key={`${own.a} ${own.what}`}>
              <th scope="row">
                {own.name}, {own.title.toLowerCase()}
              </th>
              <td>{own.shown[system]}</td>
              <td>{own.certain}</td>
              <td>{WORDS[own.believed]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}

const COLUMNS = ['Average torque', 'Average power', 'Peak torque', 'Peak power'] as const

/** Combinations ranked as a contest counts them, on what was measured. */
function Board({ report }: { report: PullsReport }) {
  const system = useSessionPart((state) => state.system)
  if (report.board.length === 0) return null
  return (
    <div className="wide-table">
      <table className="figures" aria-label="Ranked on what was measured">
        <thead>
          <tr>
            <th scope="col">Place</th>
            <th scope="col">Candidate</th>
            {COLUMNS.map((title) => (
              <th key={title} scope="col">
                {title}
              </th>
            ))}
            <th scope="col">Points</th>
          </tr>
        </thead>
        <tbody>
          {report.board.map((row) => (
            <tr key={row.candidate}>
              <td>{row.place}</td>
              <th scope="row">{row.name}</th>
              {row.values.map((value, place) => (
                <td key={COLUMNS[place]}>
                  {value[system]} <span className="quiet">{row.ranks[place]}</span>
                </td>
              ))}
              <td>{row.points}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
