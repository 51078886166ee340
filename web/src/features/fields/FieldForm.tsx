import type { ReactNode } from 'react'
import { useEffect } from 'react'
import type { Group } from '../../model/groups'
import { fieldsOf, isWanted } from '../../model/groups'
import type { FormField } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Picture } from '../pictures/Picture'
import { FieldRow } from './FieldRow'
import { labelIn } from './labels'
import { SectionSource } from './SectionSource'
import { TableField } from './TableField'
import './fields.css'

/** Every field of one step in its groups, each with its text, unit, source and fault. */
export function FieldForm({
  groups,
  focus,
}: {
  groups: readonly Group[]
  focus: string | undefined
}) {
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
      {groups.map((group, at) => (
        <GroupFields
          key={group.title}
          group={group}
          alone={at === 0 && groups.every((g, i) => i === 0 || g.folded !== undefined)}
          fields={fieldsOf(group, fields, index).filter(isWanted)}
          focus={focus}
        />
      ))}
    </div>
  )
}

function Folded({ title, open, children }: { title: string; open: boolean; children: ReactNode }) {
  return (
    <details className="folded" open={open}>
      <summary>{title}</summary>
      {children}
    </details>
  )
}

interface GroupProps {
  readonly group: Group
  /** Whether the step's own title says all that the group's would. */
  readonly alone: boolean
  readonly fields: readonly FormField[]
  readonly focus: string | undefined
}

function GroupFields({ group, alone, fields, focus }: GroupProps) {
  if (fields.length === 0) return null
  const tables = fields.filter((field) => field.table)
  const shown = (
    <fieldset className={group.picture ? 'pictured' : ''}>
      <legend>
        {group.folded ? null : <span className={alone ? 'unseen' : ''}>{group.title}</span>}
        <SectionSource title={group.title} fields={fields} />
      </legend>
      <div className="group-body">
        <div className="form-grid">
          {fields
            .filter((field) => !field.table)
            .map((field) => (
              <FieldRow key={field.field} field={field} label={labelIn(field, fields)} />
            ))}
        </div>
        {tables.length > 0 ? (
          <div className="tables">
            {tables.map((field) => (
              <TableField key={field.field} field={field} label={labelIn(field, fields)} />
            ))}
          </div>
        ) : null}
      </div>
      {group.picture ? <Picture name={group.picture} /> : null}
    </fieldset>
  )
  const open =
    focus !== undefined || (group.folded === 'while empty' && fields.some((field) => field.given))
  return group.folded ? (
    <Folded title={group.title} open={open}>
      {shown}
    </Folded>
  ) : (
    shown
  )
}
