import { Dropdown } from 'antd'
import { useState } from 'react'
import type { Edit, FormField } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import {
  hasSource,
  letterOf,
  markOf,
  ownForCandidate,
  ownForExhaust,
  saidOf,
  SOURCES,
} from './sources'

interface Props {
  readonly field: FormField
  readonly label: string
}

/** Where a field comes from, a letter in it that opens a menu: another source, a value of its own for a side or a candidate. */
export function SourceMark({ field, label }: Props) {
  const [open, setOpen] = useState(false)
  if (!field.applies)
    return (
      <span className="mark none" title="It has no meaning here">
        ×
      </span>
    )
  if (!field.given && field.text === '') return null
  const word = field.given ? saidOf(field.source) : 'assumed, by default'
  const mark = (
    // Not a stop of its own: a form is typed through from field to field. Alt+Down in the field opens it.
    <button
      type="button"
      tabIndex={-1}
      className={`mark ${field.source}`}
      aria-label={hasSource(field) ? `Source of ${label}: ${word}` : `More of ${label}`}
      aria-haspopup="menu"
      title={hasSource(field) ? word : 'More'}
      onClick={() => setOpen(true)}
    >
      {hasSource(field) ? letterOf(field.source) : '·'}
    </button>
  )
  return open ? (
    <MarkMenu field={field} label={label} onClose={() => setOpen(false)}>
      {mark}
    </MarkMenu>
  ) : (
    mark
  )
}

/** The menu itself; made when it is asked for, since a form has a hundred fields. */
function MarkMenu({
  field,
  label,
  onClose,
  children,
}: Props & { readonly onClose: () => void; readonly children: React.ReactElement }) {
  const session = useSession()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const name = useSessionPart((state) => state.answer?.candidates[index]?.name) ?? ''
  const fields = useSessionPart((state) => state.answer?.fields) ?? []
  const item = (key: string, text: string, edit: Edit | undefined) =>
    edit ? [{ key, label: text, onClick: () => session.edit(edit) }] : []
  const items = [
    ...(field.given && hasSource(field)
      ? SOURCES.map(({ source }) => ({
          key: source,
          label: saidOf(source),
          disabled: source === field.source,
          onClick: () => session.edit(markOf(field, source)),
        }))
      : []),
    ...item('exhaust', 'Its own for the exhaust', ownForExhaust(field)),
    ...item('candidate', `Its own for ${name}`, ownForCandidate(field, index, fields)),
  ]
  if (items.length === 0) return children
  return (
    <Dropdown
      open
      autoFocus
      trigger={['click']}
      menu={{ items, 'aria-label': `Source of ${label}`, onClick: onClose }}
      onOpenChange={(open) => {
        if (!open) onClose()
      }}
    >
      {children}
    </Dropdown>
  )
}
