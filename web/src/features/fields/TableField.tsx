import type { ClipboardEvent } from 'react'
import { memo, useState } from 'react'
import type { FormField } from '../../api/client'
import type { Typed } from '../../model/state'
import { useSession, useSessionPart } from '../../model/useSession'
import { useFaultText } from './faults'
import { PLAIN, RowsOf } from './RowsOf'
import { filled, isPaste, withCell } from './rows'
import { SourceMark } from './SourceMark'

type Rows = readonly (readonly string[])[]

/** A table of the document: type cell by cell, or paste columns from a spreadsheet anywhere in it. */
export const TableField = memo(function TableField({
  field,
  label,
}: {
  field: FormField
  label: string
}) {
  const session = useSession()
  const refused = useSessionPart((state) => state.refusals[field.field])
  const fault = useFaultText(refused, field.field)
  const [draft, setDraft] = useState<Rows>()
  const table = field.table
  if (!table) return null
  const rows = draft ?? rowsOf(refused?.typed) ?? table.rows
  const commit = () => {
    if (draft === undefined) return
    const all = filled(draft)
    if (JSON.stringify(all) === JSON.stringify(table.rows)) {
      session.forget(field.field)
      setDraft(undefined)
      return
    }
    void session.type(field.field, all, { rows: { field: field.field, rows: all } }).then(() => {
      setDraft((now) => (now === draft ? undefined : now))
    })
  }
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain')
    if (!isPaste(text)) return
    event.preventDefault()
    setDraft(undefined)
    // Refused, the table stays as the document has it, beside the fault.
    void session.type(field.field, table.rows, { paste: { field: field.field, text } })
  }
  const escape = () => {
    setDraft(undefined)
    session.forget(field.field)
  }
  const columns = table.columns.map((column, place) =>
    column.label === '' && place === 0 ? { ...column, label } : column,
  )
  const onType = (place: number, at: number, text: string) => {
    setDraft(withCell(rows, place, at, text, columns.length))
  }
  return (
    <div className="table-field" data-field={field.field} onPaste={onPaste} title={field.help}>
      <div className="table-head">
        <b>{label}</b> <SourceMark field={field} label={label} />
      </div>
      <div
        onBlur={(event) => {
          if (!event.currentTarget.contains(event.relatedTarget)) commit()
        }}
      >
        <RowsOf
          label={label}
          columns={columns}
          rows={rows.length < table.most ? [...rows, []] : rows}
          onType={onType}
          onEnter={commit}
          onEscape={escape}
        />
      </div>
      <div className="table-foot quiet">
        {rows.length > PLAIN ? `${rows.length} rows. ` : ''}
        {rows.length === 0 ? 'Type a row, or paste columns from a spreadsheet.' : ''}
        {rows.length > 0 ? (
          <button
            type="button"
            className="link quiet"
            onClick={() => session.edit({ set: { field: field.field, text: '' } })}
            aria-label={`Clear ${label}`}
          >
            clear
          </button>
        ) : null}
      </div>
      {fault === undefined ? null : (
        <div className="fault" role="alert">
          {fault}
        </div>
      )}
    </div>
  )
})

function rowsOf(typed: Typed | undefined): Rows | undefined {
  return typed === undefined || typeof typed === 'string' ? undefined : typed
}
