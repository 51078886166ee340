import type { ReactNode } from 'react'
import { useEffect } from 'react'
import type { Group, StepName } from '../../app/steps'
import { fieldsOf, groupsOf } from '../../app/steps'
import type { FormField } from '../../api/client'
import { useSessionPart } from '../session/useSession'
import { Picture } from '../pictures/Picture'
import { FieldRow } from './FieldRow'
import { labelIn } from './labels'
import { TableField } from './TableField'

/** Every field of one step in its groups, each with its text, unit, source and fault. */
export function FieldForm({ step, focus }: { step: StepName; focus: string | undefined }) {
  const fields = useSessionPart((state) => state.answer?.fields)
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const ready = fields !== undefined
  useEffect(() => {
    if (focus === undefined || !ready) return
    const row = document.querySelector(`[data-field^="${CSS.escape(focus)}"]`)
    row?.scrollIntoView({ block: 'center' })
    row?.querySelector('input')?.focus()
  }, [focus, ready])
  if (!fields) return <p className="quiet">Reading the build…</p>
  return (
    <div className="form">
      {groupsOf(step).map((group) => <GroupFields key={group.title} group={group} fields={fieldsOf(group, fields, index)} focus={focus} />)}
    </div>
  )
}

function Folded({ title, open, children }: { title: string; open: boolean; children: ReactNode }) {
  return <details className="folded" open={open}><summary>{title}</summary>{children}</details>
}

function GroupFields({ group, fields, focus }: { group: Group; fields: readonly FormField[]; focus: string | undefined }) {
  if (fields.length === 0) return null
  const tables = fields.filter((field) => field.table)
  const shown = (
    <fieldset className={group.picture ? 'pictured' : ''}>
      {group.folded === true ? null : <legend>{group.title}</legend>}
      <div className="group-body">
        <div className="form-grid">
          {fields.filter((field) => !field.table).map((field) => <FieldRow key={field.field} field={field} label={labelIn(field, fields)} />)}
        </div>
        {tables.length > 0 ? (
          <div className="tables">{tables.map((field) => <TableField key={field.field} field={field} label={labelIn(field, fields)} />)}</div>
        ) : null}
      </div>
      {group.picture ? <Picture name={group.picture} /> : null}
    </fieldset>
  )
  return group.folded === true ? <Folded title={group.title} open={focus !== undefined || tables.some((field) => field.given)}>{shown}</Folded> : shown
}
