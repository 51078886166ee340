import { Select } from 'antd'
import { memo } from 'react'
import type { FormField } from '../../api/client'
import { useSession, useSessionPart } from '../session/useSession'
import { faultOf } from './faults'
import { TextField } from './TextField'

const SOURCES = [
  { value: 'measured', label: 'measured' },
  { value: 'card', label: 'card' },
  { value: 'assumed', label: 'assumed' },
  { value: 'unmarked', label: '·' },
]

/** One field of the document: its text as typed, the other unit beside it, where it comes from. */
export const FieldRow = memo(function FieldRow({ field, label }: { field: FormField; label: string }) {
  const session = useSession()
  const fault = useSessionPart((state) => faultOf(state.faults, field.field))
  const system = useSessionPart((state) => state.system)
  const set = (text: string) => { session.edit({ set: { field: field.field, text } }) }
  const read = field.shown?.[system]
  const shown = read !== undefined && read !== field.text ? <span className="quiet">{read}</span> : <span />
  return (
    <div className={`field-row ${field.given ? '' : 'not-given'}`} data-field={field.field}>
      {field.choices.length > 0 ? (
        <div className="field" title={field.help}>
          <label>{label}</label>
          <Select
            aria-label={label}
            value={field.text === '' ? null : field.text}
            placeholder="not given"
            onChange={set}
            options={field.choices.map((word) => ({ value: word, label: word.replaceAll('_', ' ') }))}
          />
        </div>
      ) : (
        <TextField label={label} value={field.text} onCommit={set} suffix={shown} fault={fault} help={`${field.help} Needs ${field.needs}.`} />
      )}
      {field.field.endsWith(']') ? <span /> : field.given ? (
        <Select
          size="small"
          variant="borderless"
          className="source"
          aria-label={`Source of ${label}`}
          value={field.source}
          onChange={(source) => { session.edit({ source: { field: field.field, source: source === 'unmarked' ? '' : source } }) }}
          options={SOURCES}
        />
      ) : (
        <span className="source quiet">{field.text === '' ? 'not given' : 'assumed'}</span>
      )}
    </div>
  )
})
