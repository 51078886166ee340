import { useState } from 'react'
import type { Column } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { marginsOf, tallyOf } from '../margins/order'
import type { Row } from './rows'
import { rowsOf, themesOf } from './rows'

/** A row for each figure, a column for each candidate: margins, springs, money, then what differs. */
export function Figures({ columns }: { columns: readonly Column[] }) {
  const session = useSession()
  const index = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const system = useSessionPart((state) => state.system)
  const [all, setAll] = useState(false)
  const rows = rowsOf(columns, system).filter((row) => all || row.differs)
  return (
    <>
      <div className="wide">
        <table className="figures decide-figures">
          <thead>
            <tr>
              <td />
              {columns.map((column) => (
                <th key={column.id} scope="col" aria-current={column.id === index}>
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
                <td key={column.id}>{tallyOf(marginsOf(column.limits))}</td>
              ))}
            </tr>
            <tr>
              <th scope="row">Not met or tight</th>
              {columns.map((column) => (
                <td key={column.id}>
                  <Broken column={column} />
                </td>
              ))}
            </tr>
            <tr>
              <th scope="row">Can its springs stay?</th>
              {columns.map((column) => (
                <td key={column.id} className={column.springs_stay?.verdict ?? ''}>
                  {column.springs_stay ? STAY[column.springs_stay.verdict] : 'unknown'}
                </td>
              ))}
            </tr>
            {columns.some(({ money }) => money) ? (
              <tr>
                <th scope="row">Parts, money</th>
                {columns.map((column) => (
                  <td key={column.id}>{column.money?.[system] ?? 'no prices'}</td>
                ))}
              </tr>
            ) : null}
            {[...themesOf(columns, system), ...rows].map((row) => (
              <FigureRow key={row.id} row={row} columns={columns} />
            ))}
          </tbody>
        </table>
      </div>
      <label className="check">
        <input type="checkbox" checked={all} onChange={(event) => setAll(event.target.checked)} />{' '}
        also what is equal
      </label>
    </>
  )
}

function FigureRow({ row, columns }: { row: Row; columns: readonly Column[] }) {
  return (
    <tr>
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
  )
}

const STAY = {
  ok: 'yes',
  advice: 'yes, with advice',
  tight: 'yes, little to spare',
  unknown: 'not known',
  fails: 'no',
} as const

/** What stands against a candidate, a word each. */
function Broken({ column }: { column: Column }) {
  const against = marginsOf(column.limits).filter(
    ({ worst }) => worst.verdict === 'fails' || worst.verdict === 'tight',
  )
  if (against.length === 0) return <>nothing</>
  return (
    <>
      {against.map(({ id, title, worst }) => (
        <span key={id} className={`word ${worst.verdict}`}>
          {title} {worst.verdict}
        </span>
      ))}
    </>
  )
}
