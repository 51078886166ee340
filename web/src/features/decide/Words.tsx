import type { Column } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'

/** What each does differently from the one in view, in words; on the strip by one click. */
export function Words({ columns }: { columns: readonly Column[] }) {
  const session = useSession()
  const viewedId = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const beside = useSessionPart((state) => state.beside)
  const system = useSessionPart((state) => state.system)
  const viewed = columns.find(({ id }) => id === viewedId)
  return (
    <div className="differs">
      {columns.map((column) =>
        column.id === viewedId ? null : (
          <section key={column.id}>
            <h2>
              {column.name} <span className="quiet">against {viewed?.name}</span>
            </h2>
            <WordList words={column.comparison.words.map((words) => words[system])} />
            {column.comparison.fields.length > 0 ? (
              <details>
                <summary>
                  {column.comparison.fields.length}{' '}
                  {column.comparison.fields.length === 1 ? 'field differs' : 'fields differ'}
                </summary>
                <ul>
                  {column.comparison.fields.map((f) => (
                    <li key={f.field}>
                      {f.label}: <s>{f.before || 'not given'}</s> → {f.after || 'not given'}
                    </li>
                  ))}
                </ul>
              </details>
            ) : null}
            <button
              type="button"
              className="link"
              onClick={() => session.layBeside(beside === column.id ? undefined : column.id)}
            >
              {beside === column.id ? 'take off the strip' : 'lay beside on the strip'}
            </button>
          </section>
        ),
      )}
    </div>
  )
}

/** What is said at once; the rest on request. */
const FIRST = 10

function WordList({ words }: { words: readonly string[] }) {
  if (words.length === 0) return <p className="quiet">Nothing that is computed differs.</p>
  const item = (text: string) => <li key={text}>{text}</li>
  return (
    <>
      <ul>{words.slice(0, FIRST).map(item)}</ul>
      {words.length > FIRST ? (
        <details>
          <summary>and {words.length - FIRST} more</summary>
          <ul>{words.slice(FIRST).map(item)}</ul>
        </details>
      ) : null}
    </>
  )
}
