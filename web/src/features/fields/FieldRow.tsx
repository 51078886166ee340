import type { KeyboardEvent, ReactNode } from 'react'
import { memo, useId } from 'react'
import type { FormField } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import type { Refused } from '../../model/state'
import { useFaultText } from './faults'
import { readsAlike, spoken } from './labels'
import { SourceMark } from './SourceMark'
import { TextField } from './TextField'

/** One field of the document: its text as typed, the other unit beside it, where it comes from. */
export const FieldRow = memo(function FieldRow({
  field,
  label,
}: {
  field: FormField
  label: string
}) {
  const session = useSession()
  const refused = useSessionPart((state) => state.refusals[field.field])
  const system = useSessionPart((state) => state.system)
  const set = (text: string) =>
    session.type(field.field, text, { set: { field: field.field, text } })
  const forget = () => {
    session.forget(field.field)
  }
  const read = field.shown?.[system]
  const unit = system === 'inch' ? field.unit_inch : field.unit_metric
  const beside =
    read !== undefined && !readsAlike(field.text, read) ? read : field.text === '' ? unit : ''
  const mark = <SourceMark field={field} label={label} />
  return (
    <div
      className={`field-row ${field.given ? '' : 'not-given'}`}
      data-field={field.field}
      onKeyDown={openMark}
    >
      {field.choices.length > 0 ? (
        <Choice
          field={field}
          label={label}
          refused={refused}
          onChoose={(text) => void set(text)}
          onForget={forget}
          mark={mark}
        />
      ) : (
        <TextField
          label={label}
          value={field.text}
          onCommit={set}
          suffix={
            <>
              {beside === '' ? null : <span className="quiet">{beside}</span>}
              {mark}
            </>
          }
          refused={refused}
          onForget={forget}
          field={field.field}
          help={`${field.help} Needs ${field.needs[system]}.`}
        />
      )}
    </div>
  )
})

interface ChoiceProps {
  readonly field: FormField
  readonly label: string
  readonly refused: Refused | undefined
  readonly onChoose: (text: string) => void
  readonly onForget: () => void
  readonly mark: ReactNode
}

function Choice({ field, label, refused, onChoose, onForget, mark }: ChoiceProps) {
  const id = useId()
  const fault = useFaultText(refused, field.field)
  return (
    <div className="field" title={field.help}>
      <label htmlFor={id}>{label}</label>
      <span className="text-input">
        <select
          id={id}
          value={field.text}
          aria-invalid={fault !== undefined}
          onChange={(event) => onChoose(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Escape') onForget()
          }}
        >
          <option value="">not given</option>
          {field.choices.map((word) => (
            <option key={word} value={word}>
              {spoken(word)}
            </option>
          ))}
        </select>
        {mark}
      </span>
      <div className="help">{field.help}</div>
      {fault === undefined ? null : (
        <div className="fault" role="alert">
          {fault}
        </div>
      )}
    </div>
  )
}

/** Alt+Down opens the menu of the mark, as a list opens in a browser. */
function openMark(event: KeyboardEvent<HTMLElement>): void {
  if (!event.altKey || event.key !== 'ArrowDown') return
  event.preventDefault()
  event.currentTarget.querySelector<HTMLButtonElement>('button.mark')?.click()
}
