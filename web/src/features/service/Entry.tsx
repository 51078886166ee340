import { Button, Select } from 'antd'
import type { FormField, ServiceReport } from '../../api/client'
import { fieldsOfEntry } from '../../model/groups'
import { useSession, useSessionPart } from '../../model/useSession'
import { FieldRow } from '../fields/FieldRow'
import { eventWords, partsOfEntry } from './entries'
import { ValveGrid } from './ValveGrid'

interface Props {
  readonly entry: ServiceReport['entries'][number]
  readonly cylinders: number
}

/** One entry: what was done, what was changed and found, and what every valve read. */
export function Entry({ entry, cylinders }: Props) {
  const session = useSession()
  const fields = useSessionPart((state) => state.answer?.fields) ?? []
  const { plain, changed, readings } = partsOfEntry(fieldsOfEntry(fields, 'service', entry.id))
  if (plain.length === 0) return <p className="quiet">Reading the entry…</p>
  return (
    <section className="entry" aria-label={`Entry of ${entry.date}`}>
      <h3>
        {entry.date}, {eventWords(entry.event)}
      </h3>
      <div className="form-grid">
        {plain.map((field) => (
          <FieldRow key={field.field} field={field} label={field.label} />
        ))}
        {changed ? <Changed field={changed} /> : null}
      </div>
      <p className="quiet">
        Readings are as they were found. What new parts read, or lash that was set, goes into an
        entry of its own after this one.
      </p>
      <ValveGrid entry={entry.id} readings={readings} cylinders={cylinders} />
      <Button
        size="small"
        className="no-print"
        onClick={() => session.edit({ remove_entry: { entry: entry.id } })}
      >
        Take this entry out
      </Button>
    </section>
  )
}

/** Which parts were renewed: their wear begins anew. */
function Changed({ field }: { field: FormField }) {
  const session = useSession()
  const rows = field.table?.rows.map(([text]) => text ?? '') ?? []
  const words = field.table?.columns[0]?.choices ?? []
  return (
    <label className="changed" title={field.help}>
      <span>{field.label}</span>
      <Select
        mode="multiple"
        size="small"
        aria-label="Parts renewed"
        placeholder="nothing renewed"
        value={rows}
        options={words.map((value) => ({ value, label: value.replaceAll('_', ' ') }))}
        onChange={(to: string[]) => {
          session.edit({ rows: { field: field.field, rows: to.map((own) => [own]) } })
        }}
      />
    </label>
  )
}
