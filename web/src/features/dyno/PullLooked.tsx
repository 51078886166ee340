import { Button } from 'antd'
import { useEffect } from 'react'
import type { PullReport, PullsReport } from '../../api/client'
import { fieldsOfEntry } from '../../model/groups'
import { useSession, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { FieldRow } from '../fields/FieldRow'
import { useScales } from '../torque/useScales'
import { trimmedCurves } from './pulls'

interface Props {
  readonly pull: PullReport
  readonly flags: PullsReport['flags']
}

/** One pull: its points, what of them counts and why, and how it was run. */
export function PullLooked({ pull, flags }: Props) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const scales = useScales()
  useEffect(() => () => session.lookAtPull(undefined), [session])
  const remove = () => {
    session.edit({ remove_pull: { pull: pull.id } })
  }
  return (
    <section className="pull-looked" aria-label={`Pull ${pull.id}`}>
      {scales ? (
        <Chart
          label={`Pull ${pull.id} of ${pull.name}, every point as it was read`}
          name={`pull ${pull.id}`}
          curves={trimmedCurves('torque', pull, scales.torque.factor, 'one')}
          x={{ unit: 'rpm' }}
          y={{ unit: scales.torque.unit }}
          height={200}
        />
      ) : null}
      {pull.trimmed === '' ? null : <p>{pull.trimmed}.</p>}
      {flags
        .filter((flag) => flag.pull === pull.id)
        .map((flag) => (
          <p key={flag.kind} className="fault">
            {flag.why[system]}
          </p>
        ))}
      <PullFields key={pull.id} id={pull.id} />
      <Button size="small" className="no-print" onClick={remove}>
        Take this pull out
      </Button>
    </section>
  )
}

/** How it was run, to be put right. */
function PullFields({ id }: { id: string }) {
  const all = useSessionPart((state) => state.answer?.fields) ?? []
  const fields = fieldsOfEntry(all, 'pulls', id).filter(({ table }) => !table)
  if (fields.length === 0) return <p className="quiet">Reading pull {id}…</p>
  return (
    <div className="form-grid no-print">
      {fields.map((field) => (
        <FieldRow key={field.field} field={field} label={field.label} />
      ))}
    </div>
  )
}
