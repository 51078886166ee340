import { Button, Checkbox, Select } from 'antd'
import { useState } from 'react'
import type { PullsReport, TestPlanReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { useScales } from '../torque/useScales'
import { STATED } from './airs'
import { today } from '../bench/lines'
import { FileColumns } from './FileColumns'
import { mappedOf, nextDrawn, runCurves } from './pulls'
import { usePullFile } from './usePullFile'

export interface Opened {
  readonly name: string
  readonly text: string
}

interface Props {
  readonly opened: Opened
  readonly report: PullsReport
  readonly plan: TestPlanReport | undefined
  readonly onDone: () => void
}

/** A dyno's file before it is taken over: what its columns hold, its runs as they would be trimmed, whose they are. */
export function PullFile({ opened, report, plan, onDone }: Props) {
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const system = useSessionPart((state) => state.system)
  const scales = useScales()
  const { answer, error, map, remember } = usePullFile(opened.text)
  const [left, setLeft] = useState<readonly number[]>([])
  const planned = typeof plan?.next === 'number' ? plan.order[plan.next]?.candidate : undefined
  const [candidate, setCandidate] = useState(planned ?? candidates[0]?.id ?? '')
  const [day, setDay] = useState(() => today(new Date()))
  const [air, setAir] = useState('')
  const [dyno, setDyno] = useState('')
  if (error)
    return (
      <>
        <p className="fault" role="alert">
          {error.message}
        </p>
        <Button onClick={onDone}>Back to the pulls</Button>
      </>
    )
  if (!answer) return <p className="quiet">Reading {opened.name}…</p>
  const { file, remembered } = answer
  const runs = file.runs.map((_, place) => place).filter((place) => !left.includes(place))
  const take = () => {
    remember()
    session.edit({
      take_pulls: {
        text: opened.text,
        mapped: mappedOf(file.columns),
        runs,
        drawn: nextDrawn(report.pulls, day),
        shared: { candidate, day, air, dyno, level: '', file: opened.name },
      },
    })
    onDone()
  }
  return (
    <section className="pull-file" aria-label={`File ${opened.name}`}>
      <h3>
        {opened.name}{' '}
        <span className="quiet">{remembered ? 'columns as they were mapped before' : ''}</span>
      </h3>
      <FileColumns columns={file.columns} onMap={map} />
      {file.lacks ? (
        <p className="fault" role="alert">
          {file.lacks}
        </p>
      ) : null}
      {file.said.map((text) => (
        <p key={text}>{text}.</p>
      ))}
      {scales && file.runs.length > 0 ? (
        <Chart
          label="Runs of the file; points are not counted"
          name={opened.name}
          curves={runCurves(file.runs, scales.torque.factor)}
          x={{ unit: 'rpm' }}
          y={{ unit: scales.torque.unit }}
          height={180}
        />
      ) : null}
      <ul className="file-runs">
        {file.runs.map((run, place) => (
          <li key={run.line}>
            <Checkbox
              checked={!left.includes(place)}
              onChange={({ target }) =>
                setLeft(target.checked ? left.filter((own) => own !== place) : [...left, place])
              }
            >
              Run {place + 1}: {run.count} points, {Math.round(run.range_rpm[0] ?? 0)} to{' '}
              {Math.round(run.range_rpm[1] ?? 0)} rpm, up to {run.peak_torque[system]}
            </Checkbox>
            {run.questions.map((text) => (
              <p key={text} className="fault">
                {text}. It will be kept and not counted until you say so.
              </p>
            ))}
          </li>
        ))}
      </ul>
      <div className="file-shared">
        <label>
          Candidate on the dyno
          <Select
            aria-label="Candidate on the dyno"
            value={candidate}
            options={candidates.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={setCandidate}
          />
        </label>
        <label>
          Day
          <input
            type="date"
            aria-label="Day"
            value={day}
            onChange={({ target }) => setDay(target.value)}
          />
        </label>
        <label>
          Torque is
          <Select aria-label="Torque is" value={air} options={[...STATED]} onChange={setAir} />
        </label>
        <label>
          Measured
          <Select
            aria-label="Measured"
            value={dyno}
            options={[
              { value: '', label: 'at the crank' },
              { value: 'chassis', label: 'at the wheels' },
            ]}
            onChange={setDyno}
          />
        </label>
      </div>
      <div className="pull-tools">
        <Button type="primary" disabled={Boolean(file.lacks) || runs.length === 0} onClick={take}>
          Take over {runs.length} {runs.length === 1 ? 'pull' : 'pulls'}
        </Button>
        <Button onClick={onDone}>Leave the file</Button>
      </div>
    </section>
  )
}
