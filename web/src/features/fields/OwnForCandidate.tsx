import type { Edit, FormField } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { candidatePath } from './labels'

/** What candidates share, made one candidate's own: compression, heads, induction can be what is compared. */
export function OwnForCandidate({ field, label }: { field: FormField; label: string }) {
  const session = useSession()
  const index = useSessionPart((state) => state.answer?.candidate_index) ?? 0
  const name = useSessionPart((state) => state.answer?.candidates[index]?.name)
  const path = candidatePath(field.field, index)
  const has = useSessionPart(
    (state) => path !== undefined && state.answer?.fields?.some((f) => f.field === path) === true,
  )
  if (path === undefined || name === undefined || !field.given || has) return null
  const edit: Edit = field.table
    ? { rows: { field: path, rows: field.table.rows } }
    : { set: { field: path, text: field.text } }
  return (
    <button
      type="button"
      className="link quiet"
      aria-label={`Own ${label} for ${name}`}
      title={`Give ${name} its own; the others keep the shared one`}
      onClick={() => session.edit(edit)}
    >
      own for this one
    </button>
  )
}
