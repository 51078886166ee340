import { useEffect, useState } from 'react'
import type { Column } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { tallyOf } from '../margins/order'
import { rowsOf } from './rows'

/** Every candidate side by side: in words, by margins, by figures. */
export function CompareStep() {
  const session = useSession()
  const columns = useSessionPart((state) => state.answer?.table)
  useEffect(() => {
    session.wantTable(true)
    return () => {
      session.wantTable(false)
    }
  }, [session])
  if (!columns) return <p className="quiet">Computing every candidate…</p>
  if (columns.length < 2)
    return (
      <p>
        There is one candidate. Duplicate it from its tab, change one thing, and see here what that
        does.
      </p>
    )
  return (
    <>
      <Words columns={columns} />
      <Figures columns={columns} />
    </>
  )
}

function Words({ columns }: { columns: readonly Column[] }) {
  const session = useSession()
  const index = useSessionPart((state) => state.answer?.candidate_index)
  const beside = useSessionPart((state) => state.beside)
  const system = useSessionPart((state) => state.system)
  const viewed = columns[index ?? 0]
  return (
    <div className="differs">
      {columns.map((column, place) =>
        place === index ? null : (
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

function Figures({ columns }: { columns: readonly Column[] }) {
  const session = useSession()
  const index = useSessionPart((state) => state.answer?.candidate_index)
  const system = useSessionPart((state) => state.system)
  const [all, setAll] = useState(false)
  const rows = rowsOf(columns, system).filter((row) => all || row.differs)
  return (
    <>
      <label className="check">
        <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} />{' '}
        also what is equal
      </label>
      <div className="wide">
        <table className="figures">
          <thead>
            <tr>
              <td />
              {columns.map((column, place) => (
                <th key={column.id} scope="col" aria-current={place === index}>
                  <button type="button" className="link" onClick={() => session.choose(column.id)}>
                    {column.name}
                  </button>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Margins</th>
              {columns.map((column) => (
                <td key={column.id}>{tallyOf(column.limits)}</td>
              ))}
            </tr>
            {rows.map((row) => (
              <tr key={row.id}>
                <th scope="row">{row.label}</th>
                {row.cells.map((cell, place) => (
                  <td key={columns[place]?.id} className={cell.verdict ?? ''}>
                    {cell.text}
                    {cell.verdict === 'fails' || cell.verdict === 'tight' ? (
                      <span className="quiet"> {cell.verdict}</span>
                    ) : null}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}
