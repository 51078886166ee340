import { useId, useState } from 'react'
import type { Asked, Fault, FormField, UnitSystem } from '../../api/client'
import { spoken } from '../fields/labels'

interface Props {
  readonly asked: readonly Asked[]
  readonly known: Readonly<Record<string, string>>
  readonly faults: readonly Fault[]
  readonly system: UnitSystem
  readonly onKnown: (field: string, text: string) => void
}

/** What settles most, first: what is assumed stands in the field until something is typed over it. */
export function AskedFields({ asked, known, faults, system, onKnown }: Props) {
  const fault = (field: string) => faults.find((each) => each.field === field)
  const elsewhere = faults.filter(({ field }) => !asked.some((each) => each.field.field === field))
  return (
    <fieldset className="asked">
      <legend>What you know of it; the rest stays as assumed</legend>
      <div className="form-grid">
        {asked.map(({ field, range }) => (
          <AskedField
            key={field.field}
            field={field}
            range={range ?? undefined}
            known={known[field.field]}
            fault={fault(field.field)}
            system={system}
            onKnown={(text) => onKnown(field.field, text)}
          />
        ))}
      </div>
      {elsewhere.map((each) => (
        <p key={each.field} className="fault" role="alert">
          {each.label}: needs {each.needs}
        </p>
      ))}
    </fieldset>
  )
}

interface FieldProps {
  readonly field: FormField
  readonly range: readonly string[] | undefined
  readonly known: string | undefined
  readonly fault: Fault | undefined
  readonly system: UnitSystem
  readonly onKnown: (text: string) => void
}

function AskedField({ field, range, known, fault, system, onKnown }: FieldProps) {
  const id = useId()
  const [typed, setTyped] = useState(known ?? '')
  const hint = range ? `most have ${range.join(' to ')}` : undefined
  const said = fault ? `needs ${fault.shown?.[system] ?? fault.needs}` : undefined
  return (
    <div
      className={`field ${known === undefined ? 'not-given' : ''}`}
      title={[field.help, hint].filter(Boolean).join(' ')}
    >
      <label htmlFor={id}>{field.spoken}</label>
      <span className="text-input">
        {field.choices.length > 0 ? (
          <select
            id={id}
            value={known ?? field.text}
            onChange={(event) => onKnown(event.target.value)}
          >
            {field.choices.map((word) => (
              <option key={word} value={word}>
                {spoken(word)}
              </option>
            ))}
          </select>
        ) : (
          <input
            id={id}
            type="text"
            placeholder={field.text}
            value={typed}
            autoComplete="off"
            spellCheck={false}
            aria-invalid={said !== undefined}
            aria-describedby={said ? `${id}-fault` : undefined}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={() => onKnown(typed)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') onKnown(typed)
            }}
          />
        )}
        {field.choices.length > 0 ? null : (
          <span className="quiet">
            {known === undefined
              ? 'assumed'
              : system === 'inch'
                ? field.unit_inch
                : field.unit_metric}
          </span>
        )}
      </span>
      {said ? (
        <div className="fault" id={`${id}-fault`} role="alert">
          {said}
        </div>
      ) : null}
    </div>
  )
}
