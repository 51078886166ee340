import { Button, Select } from 'antd'
import { useState } from 'react'
import type { DiagnosisLine, DiagnosisReport, PullsReport } from '../../api/client'
import { percent } from '../../model/figures'
import { useJob, waitsFor } from '../../model/useJob'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { useScales } from '../torque/useScales'
import { causeCurves, daysOf, shareWords } from './wrongs'

interface Asked {
  readonly document: string
  readonly candidate: string
  readonly day: string | null
}

const MODEL = ''

/** What is wrong with the pulls of a candidate beside its own earlier ones or the model, and what may be behind it. */
export function Wrong({ report }: { report: PullsReport }) {
  const document = useSessionPart((state) => state.history.present)
  const viewed = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const system = useSessionPart((state) => state.system)
  const pulled = [...new Map(report.pulls.map((own) => [own.candidate, own.name])).entries()]
  const [chosen, setChosen] = useState<string>()
  const candidate =
    chosen ?? pulled.find(([id]) => id === viewed)?.[0] ?? pulled[0]?.[0] ?? viewed ?? ''
  const days = daysOf(report, candidate)
  // The days before the last one are what it may be held against.
  const [day, setDay] = useState<string>()
  const against = day ?? (days.length > 1 ? (days[0] ?? MODEL) : MODEL)
  const [asked, setAsked] = useState<Asked>()
  const request = asked?.document === document ? asked : undefined
  const job = useJob<DiagnosisLine>('/api/diagnosis', ['diagnosis', request], request)
  const line = job.data
  const found = line?.state === 'running' || line?.state === 'done' ? line.report : undefined
  if (pulled.length === 0)
    return <p className="quiet">Nothing was measured yet: take in pulls first.</p>
  return (
    <>
      <div className="compare-tools no-print">
        <label>
          Pulls of{' '}
          <Select
            size="small"
            aria-label="Pulls of"
            value={candidate}
            popupMatchSelectWidth={false}
            options={pulled.map(([value, label]) => ({ value, label }))}
            onChange={(to) => {
              setChosen(to)
              setDay(undefined)
            }}
          />
        </label>
        <label>
          held against{' '}
          <Select
            size="small"
            aria-label="Held against"
            value={against}
            popupMatchSelectWidth={false}
            options={[
              { value: MODEL, label: 'what the model predicts' },
              ...(days.length > 1
                ? days.map((own) => ({ value: own, label: `its pulls of ${own}` }))
                : []),
            ]}
            onChange={setDay}
          />
        </label>
        <Button
          size="small"
          type="primary"
          disabled={job.isFetching}
          onClick={() => setAsked({ document, candidate, day: against === MODEL ? null : against })}
        >
          Look into it
        </Button>
        <span className="quiet" role="status">
          {doing(line, request !== undefined)}
        </span>
      </div>
      {job.error ? (
        <p className="fault" role="alert">
          {job.error.message}
        </p>
      ) : null}
      {line?.state === 'failed' ? <p className="fault">{line.reason}</p> : null}
      {found ? (
        <>
          <p className="answer">{found.says[system]}</p>
          <Causes report={found} />
        </>
      ) : null}
    </>
  )
}

function doing(line: DiagnosisLine | undefined, isAsked: boolean): string {
  if (!isAsked) return ''
  if (line?.state === 'running')
    return `run in the model: ${String(line.done)} of ${String(line.of)}`
  return line?.state === 'done' ? '' : (waitsFor(line, 'drafting the sound engine') ?? '')
}

/** The causes in the order they are best looked into; the one that is pointed at is laid over what was measured. */
function Causes({ report }: { report: DiagnosisReport }) {
  const scales = useScales()
  const [shown, setShown] = useState<string>()
  const run = report.causes.filter(({ torque_nm }) => torque_nm)
  const laid = run.find(({ id }) => id === shown) ?? run[0]
  return (
    <>
      {report.symptoms.length > 1 ? (
        <ul>
          {report.symptoms.map(({ kind, says }) => (
            <li key={kind}>{says}</li>
          ))}
        </ul>
      ) : null}
      {scales ? (
        <Chart
          label={`Measured beside ${report.against}${laid ? `, and with ${laid.tried}` : ''}`}
          name="what is wrong"
          curves={causeCurves(report, laid, scales.torque.factor)}
          x={{ unit: 'rpm' }}
          y={{ unit: scales.torque.unit }}
          height={200}
        />
      ) : null}
      {report.causes.length > 0 ? (
        <div className="wide-table">
          <table className="figures causes" aria-label="What may be behind it">
            <thead>
              <tr>
                <th scope="col">Look into</th>
                <th scope="col">How likely</th>
                <th scope="col">In the model</th>
                <th scope="col">Test that tells it</th>
                <th scope="col">Takes</th>
              </tr>
            </thead>
            <tbody>
              {report.causes.map((own) => (
                <tr key={own.id} aria-current={own.id === laid?.id}>
                  <th scope="row">
                    {own.title}
                    <div className="quiet">{own.because}</div>
                  </th>
                  <td>{percent(own.share, 0)}</td>
                  <td>
                    {shareWords(own)}
                    {own.torque_nm ? (
                      <div>
                        <button type="button" className="link" onClick={() => setShown(own.id)}>
                          Lay it over
                        </button>
                      </div>
                    ) : null}
                  </td>
                  <td className="words">{own.test}.</td>
                  <td>
                    {own.minutes} min{own.usd > 0 ? `, ${String(own.usd)} USD` : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : null}
    </>
  )
}
