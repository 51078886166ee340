import { Dropdown } from 'antd'
import type { FormField } from '../../api/client'
import { useSession } from '../../model/useSession'
import { hasSource, marksOf, saidOf, SOURCES } from './sources'

/** What a section's values come from, in words, and one source for all of them: one step of undo. */
export function SectionSource({ title, fields }: { title: string; fields: readonly FormField[] }) {
  const session = useSession()
  const given = fields.filter((field) => field.given && hasSource(field))
  if (given.length < 2) return null
  const items = SOURCES.map(({ source }) => ({
    key: source,
    label: `All ${saidOf(source)}`,
    onClick: () => session.edits(marksOf(given, source)),
  }))
  return (
    <Dropdown trigger={['click']} menu={{ items }}>
      <button
        type="button"
        className="link quiet section-source"
        aria-label={`Source of all in ${title}`}
      >
        {summaryOf(given)} ▾
      </button>
    </Dropdown>
  )
}

/** "3 measured, 5 assumed": how many come from where. */
function summaryOf(fields: readonly FormField[]): string {
  return SOURCES.flatMap(({ source }) => {
    const count = fields.filter((field) => field.source === source).length
    return count === 0
      ? []
      : [`${count === fields.length ? 'all' : String(count)} ${saidOf(source)}`]
  }).join(', ')
}
