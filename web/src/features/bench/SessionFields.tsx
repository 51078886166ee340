import { fieldsOfEntry } from '../../model/groups'
import { useSessionPart } from '../../model/useSession'
import { FieldRow } from '../fields/FieldRow'
import { TableField } from '../fields/TableField'
import { partsOfSession } from './sessions'

/** How the session was set up, and every reading of it, to be put right. */
export function SessionFields({ id }: { id: string }) {
  const fields = useSessionPart((state) => state.answer?.fields) ?? []
  const { setUp, read } = partsOfSession(fieldsOfEntry(fields, 'bench', id))
  if (setUp.length === 0) return null
  return (
    <div className="session-fields no-print">
      <fieldset>
        <legend>Set-up</legend>
        <div className="form-grid">
          {setUp.map((field) => (
            <FieldRow key={field.field} field={field} label={field.label} />
          ))}
        </div>
      </fieldset>
      <details className="folded">
        <summary>Readings, to be put right</summary>
        <div className="tables">
          {read.map((field) => (
            <TableField key={field.field} field={field} label={field.label} />
          ))}
        </div>
      </details>
    </div>
  )
}
