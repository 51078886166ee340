import type { ClipboardEvent } from 'react'
import { memo, useState } from 'react'
import type { FormColumn, FormField, FormTable } from '../../api/client'
import { useSession, useSessionPart } from '../session/useSession'
import { faultOf } from './faults'
import { OwnForCandidate } from './OwnForCandidate'
import { filled, isPaste, withCell } from './rows'
import { SourceMark } from './SourceMark'

/** Rows shown of a long table; the whole of it is kept and drawn. */
const SHOWN = 24

/** A table of the document: type cell by cell, or paste columns from a spreadsheet anywhere in it. */
export const TableField = memo(function TableField({ field, label }: { field: FormField; label: string }) {
  const session = useSession()
  const fault = useSessionPart((state) => faultOf(state.faults, field.field))
  const table = field.table
  const [draft, setDraft] = useState<{ over: FormTable; rows: string[][] }>()
  if (!table) return null
  // Rows from the server take the place of what was typed over older ones.
  const rows = draft?.over === table ? draft.rows : table.rows
  const commit = () => {
    if (draft?.over === table) session.edit({ rows: { field: field.field, rows: filled(draft.rows) } })
  }
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain')
    if (!isPaste(text)) return
    event.preventDefault()
    session.edit({ paste: { field: field.field, text } })
  }
  const columns = table.columns.map((column, place) => (column.label === '' && place === 0 ? { ...column, label } : column))
  return (
    <div className="table-field" data-field={field.field} onPaste={onPaste} title={field.help}>
      <div className="table-head"><b>{label}</b> <SourceMark field={field} label={label} /></div>
      <table>
        <thead><tr>{columns.map((column) => <Heading key={column.label} column={column} />)}</tr></thead>
        <tbody onBlur={(event) => { if (!event.currentTarget.contains(event.relatedTarget)) commit() }}>
          {[...rows.slice(0, SHOWN), ...(rows.length < table.most ? [[]] : [])].map((row, place) => (
            <tr key={place}>
              {columns.map((column, at) => (
                <td key={column.label}>
                  <Cell
                    label={`${label}, row ${place + 1}, ${column.label}`}
                    column={column}
                    text={row[at] ?? ''}
                    onType={(text) => { setDraft({ over: table, rows: withCell(rows, place, at, text, columns.length) }) }}
                    onEnter={commit}
                    onEscape={() => { setDraft(undefined) }}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <div className="table-foot quiet">
        {rows.length > SHOWN ? `${rows.length} rows, the first ${SHOWN} shown. ` : ''}
        {rows.length === 0 ? 'Type a row, or paste columns from a spreadsheet.' : ''}
        {rows.length > 0 ? <button type="button" className="link quiet" onClick={() => { session.edit({ set: { field: field.field, text: '' } }) }} aria-label={`Clear ${label}`}>clear</button> : null}{' '}
        <OwnForCandidate field={field} label={label} />
      </div>
      {fault === undefined ? null : <div className="fault" role="alert">{fault}</div>}
    </div>
  )
})

function Heading({ column }: { column: FormColumn }) {
  const unit = useSessionPart((state) => (state.system === 'inch' ? column.unit_inch : column.unit_metric))
  return <th scope="col">{column.label} <span className="quiet">{unit}</span></th>
}

interface CellProps {
  readonly label: string
  readonly column: FormColumn
  readonly text: string
  readonly onType: (text: string) => void
  readonly onEnter: () => void
  readonly onEscape: () => void
}

function Cell({ label, column, text, onType, onEnter, onEscape }: CellProps) {
  if (column.choices.length > 0) {
    return (
      <select aria-label={label} value={text} onChange={(event) => { onType(event.target.value) }}>
        <option value=""> </option>
        {column.choices.map((word) => <option key={word} value={word}>{word.replaceAll('_', ' ')}</option>)}
      </select>
    )
  }
  return (
    <input
      type="text"
      aria-label={label}
      value={text}
      autoComplete="off"
      spellCheck={false}
      onChange={(event) => { onType(event.target.value) }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onEnter()
        if (event.key === 'Escape') onEscape()
      }}
    />
  )
}
