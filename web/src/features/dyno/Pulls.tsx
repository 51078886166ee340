import { useState } from 'react'
import type { PullsReport, TestPlanReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { FileButton } from '../fields/FileButton'
import { PullFile } from './PullFile'
import type { Opened } from './PullFile'
import { PullLooked } from './PullLooked'

interface Props {
  readonly report: PullsReport
  readonly plan: TestPlanReport | undefined
}

/** Every pull that was taken in, the one that is looked at, and the way in for more. */
export function Pulls({ report, plan }: Props) {
  const session = useSession()
  const looked = useSessionPart((state) => state.pull)
  const [opened, setOpened] = useState<Opened>()
  const shown = report.pulls.find(({ id }) => id === looked)
  const open = async (file: File | undefined) => {
    if (file) setOpened({ name: file.name, text: await file.text() })
  }
  if (opened)
    return (
      <PullFile
        key={opened.name}
        opened={opened}
        report={report}
        plan={plan}
        onDone={() => setOpened(undefined)}
      />
    )
  return (
    <>
      <div className="pull-tools no-print">
        <FileButton
          label="Take in a dyno's file"
          fileLabel="File of a dyno"
          accept=".csv,.txt,.tsv,.dat,text/csv,text/plain"
          onFile={(file) => void open(file)}
        />
        <span className="quiet">
          Any table of speed with torque or power; nothing leaves this machine.
        </span>
      </div>
      {report.pulls.length > 0 ? (
        <PullTable report={report} looked={looked} onLook={(id) => session.lookAtPull(id)} />
      ) : null}
      {shown ? <PullLooked key={shown.id} pull={shown} flags={report.flags} /> : null}
    </>
  )
}

interface TableProps {
  readonly report: PullsReport
  readonly looked: string | undefined
  readonly onLook: (id: string) => void
}

function PullTable({ report, looked, onLook }: TableProps) {
  const system = useSessionPart((state) => state.system)
  const flagged = (id: string) => report.flags.find(({ pull }) => pull === id)
  return (
    <div className="wide-table">
      <table className="figures pull-table">
        <thead>
          <tr>
            <th scope="col">Pull</th>
            <th scope="col">Candidate</th>
            <th scope="col">Day</th>
            <th scope="col">Place</th>
            <th scope="col">Average torque</th>
            <th scope="col">Peak power</th>
            <th scope="col">What of it</th>
          </tr>
        </thead>
        <tbody>
          {report.pulls.map((pull) => (
            <tr key={pull.id} aria-current={pull.id === looked}>
              <th scope="row">
                <button type="button" className="link" onClick={() => onLook(pull.id)}>
                  {pull.id}
                </button>
              </th>
              <td>{pull.name}</td>
              <td>{pull.day}</td>
              <td>{pull.drawn}</td>
              <td>{pull.average_torque?.[system] ?? ''}</td>
              <td>{pull.peak_power?.[system] ?? ''}</td>
              <td className="words">
                {pull.counted ? '' : `not counted: ${pull.why_not}`}
                {pull.counted ? (flagged(pull.id)?.why[system] ?? pull.trimmed) : ''}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
