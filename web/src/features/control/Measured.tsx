import { Button, Select } from 'antd'
import { useState } from 'react'
import type { MotionFitReport, MotionLine } from '../../api/client'
import { useAsked } from '../../model/useAsked'
import { useJob, waitsFor } from '../../model/useJob'
import { useSession, useSessionPart } from '../../model/useSession'
import { today } from '../bench/lines'
import { FileButton } from '../fields/FileButton'
import { Take, useForget } from '../fields/Take'
import { MeasuredFit } from './MeasuredFit'
import { tracesOf } from './traces'
import type { Trace } from './traces'

const SIDES = [
  { value: 'intake', label: 'of an intake valve' },
  { value: 'exhaust', label: 'of an exhaust valve' },
]
const TURNED = [
  { value: 'rig', label: 'turned by a rig, no gas' },
  { value: 'engine', label: 'in the running engine' },
]

/** Measured lift of a valve at speed: taken in, laid on the train in motion, and what it says of what nobody measures. */
export function Measured({ candidate }: { candidate: string | undefined }) {
  const session = useSession()
  const document = useSessionPart((state) => state.history.present)
  const refused = useSessionPart((state) => state.faults.find(({ field }) => field === 'file'))
  const all = tracesOf(document)
  const own = all.filter((trace) => trace.candidate === candidate)
  const [side, setSide] = useState('intake')
  const [turnedBy, setTurnedBy] = useState('rig')
  const { document: asked, ask, isOld } = useAsked('train_fit')
  const line = useJob<MotionLine>(
    '/api/motion',
    ['motion', asked, candidate],
    asked === undefined ? undefined : { document: asked, candidate },
  )
  const open = async (file: File | undefined) => {
    if (!file || candidate === undefined) return
    const text = await file.text()
    const shared = { candidate, side, turned_by: turnedBy, day: today(new Date()), file: file.name }
    session.edit({ take_motion: { text, shared } })
  }
  return (
    <section className="measured-motion" aria-label="Measured valve motion">
      <h3>Measured at speed</h3>
      <div className="control-tools no-print">
        <FileButton
          label="Take in measured lift"
          fileLabel="File of measured lift"
          accept=".csv,.txt,.tsv,.dat,text/csv,text/plain"
          onFile={(file) => void open(file)}
        />
        <Select
          size="small"
          aria-label="Valve of the file"
          value={side}
          onChange={setSide}
          options={SIDES}
          popupMatchSelectWidth={false}
        />
        <Select
          size="small"
          aria-label="What turned it"
          value={turnedBy}
          onChange={setTurnedBy}
          options={TURNED}
          popupMatchSelectWidth={false}
        />
        {own.length > 0 ? (
          <Button size="small" disabled={line.isFetching} onClick={ask}>
            Fit the train to it
          </Button>
        ) : null}
        <span className="quiet" role="status">
          {told(line.data)}
        </span>
      </div>
      {own.length === 0 ? (
        <p className="quiet">
          Lift over the crank at some speeds, from a rig or a running engine, in columns headed by
          their speeds: it shows what no drawing of a train tells, its damping, its seats and the
          air in its oil.
        </p>
      ) : (
        <Traces traces={own} />
      )}
      {refused || line.error ? (
        <p className="fault" role="alert">
          {refused ? `The file needs ${refused.needs}.` : line.error?.message}
        </p>
      ) : null}
      {line.data?.state === 'done' ? <MeasuredFit report={line.data.report} /> : null}
      <Taken report={line.data?.state === 'done' ? line.data.report : undefined} isOld={isOld} />
    </section>
  )
}

function told(line: MotionLine | undefined): string {
  if (line?.state === 'running') return `${String(line.done)} of at most ${String(line.of)} steps`
  if (line?.state === 'failed') return line.reason
  return (line && waitsFor(line, '')) ?? ''
}

function Traces({ traces }: { traces: readonly Trace[] }) {
  const session = useSession()
  return (
    <ul className="trace-list">
      {traces.map(({ id, side, speed, turnedBy, points }) => (
        <li key={id}>
          {side} at {speed}{' '}
          <span className="quiet">
            {points} points, {turnedBy === 'rig' ? 'on a rig' : 'running'}
          </span>{' '}
          <Button
            size="small"
            type="text"
            aria-label={`Take out the ${side} at ${speed}`}
            onClick={() => session.edit({ remove_motion: { trace: id } })}
          >
            Take out
          </Button>
        </li>
      ))}
    </ul>
  )
}

/** Whether the train goes by a fit, and the way out of it. */
function Taken({ report, isOld }: { report: MotionFitReport | undefined; isOld: boolean }) {
  const forget = useForget('train_fit')
  return (
    <p className="no-print">
      {report ? (
        <Take fields={report.fields} label="Take these constants" held="" isOld={isOld} />
      ) : null}{' '}
      {forget ? (
        <>
          <span className="quiet">The train goes by what was measured.</span>{' '}
          <Button size="small" onClick={forget}>
            Forget what was measured
          </Button>
        </>
      ) : null}
    </p>
  )
}
