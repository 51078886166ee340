import type { FormField } from '../../api/client'
import { useSession } from '../../model/useSession'

const SOURCES = ['measured', 'card', 'assumed'] as const

/** What a person wants or calls something has no source. */
function isWish(path: string): boolean {
  return /^(target\.|limits|name$|use$|notes$)|\.name$/.test(path)
}

/** Where a field comes from, in a word that can be changed; a default says that it is assumed. */
export function SourceMark({ field, label }: { field: FormField; label: string }) {
  const session = useSession()
  if (!field.applies) return <span className="source quiet">no meaning here</span>
  if (field.given && isWish(field.field)) return null
  if (!field.given)
    return <span className="source quiet">{field.text === '' ? 'not given' : 'assumed'}</span>
  return (
    <select
      className={`source ${field.source}`}
      aria-label={`Source of ${label}`}
      value={field.source}
      onChange={(event) => {
        const source = event.target.value
        session.edit({
          source: { field: field.field, source: source === 'unmarked' ? '' : source },
        })
      }}
    >
      {SOURCES.map((source) => (
        <option key={source} value={source}>
          {source}
        </option>
      ))}
      <option value="unmarked">no source</option>
    </select>
  )
}
