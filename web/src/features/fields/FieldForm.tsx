import { useEffect } from 'react'
import { useSessionPart } from '../session/useSession'
import { FieldRow } from './FieldRow'
import { grouped } from './groups'

/** Every field under some paths, each with its text, unit, source and fault. */
export function FieldForm({ prefixes, focus }: { prefixes: readonly string[]; focus: string | undefined }) {
  const fields = useSessionPart((state) => state.answer?.fields)
  const ready = fields !== undefined
  useEffect(() => {
    if (focus === undefined || !ready) return
    const row = document.querySelector(`[data-field^="${CSS.escape(focus)}"]`)
    row?.scrollIntoView({ block: 'center' })
    row?.querySelector('input')?.focus()
  }, [focus, ready])
  const groups = grouped(fields ?? [], prefixes)
  return (
    <div className="form">
      {groups.map((group) => (
        <fieldset key={group.title}>
          {group.title === '' ? null : <legend>{group.title}</legend>}
          <div className="form-grid">
            {group.fields.map(({ field, label }) => <FieldRow key={field.field} field={field} label={label} />)}
          </div>
        </fieldset>
      ))}
    </div>
  )
}
