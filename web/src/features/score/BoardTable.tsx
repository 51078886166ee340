import { InputNumber } from 'antd'
import type { ScoreColumn, ScoreReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { inOrder } from './columns'

interface Props {
  readonly report: ScoreReport
  readonly onWeight: (place: number, weight: string) => void
  readonly onRemove: (place: number) => void
}

/** A row for each candidate, the best first: every value with its rank, then points. */
export function BoardTable({ report, onWeight, onRemove }: Props) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  return (
    <div className="wide">
      <table className="figures board-figures">
        <thead>
          <tr>
            <th scope="col">Place</th>
            <th scope="col">Candidate</th>
            {report.columns.map((column, place) => (
              <Heading
                key={`${column.id}${String(place)}`}
                column={column}
                isLast={report.columns.length === 1}
                onWeight={(weight) => {
                  onWeight(place, weight)
                }}
                onRemove={() => {
                  onRemove(place)
                }}
              />
            ))}
            <th scope="col">Points</th>
          </tr>
        </thead>
        <tbody>
          {inOrder(report).map((at) => {
            const row = report.rows[at]
            if (!row) return null
            return (
              <tr key={row.candidate}>
                <td>
                  <b>{row.place}</b>
                </td>
                <th scope="row">
                  <button
                    type="button"
                    className="link"
                    onClick={() => {
                      session.choose(row.candidate)
                    }}
                  >
                    {row.name}
                  </button>
                  {row.broken.length > 0 ? (
                    <span className="quiet" title={row.broken.join(', ')}>
                      {' '}
                      breaks {row.broken.length} {row.broken.length === 1 ? 'limit' : 'limits'}
                    </span>
                  ) : null}
                  {row.lacks ? <span className="quiet"> {row.lacks}</span> : null}
                </th>
                {row.shown.map((value, place) => (
                  <td key={place} className={row.ranks[place] === 1 ? 'board-first' : ''}>
                    {value ? value[system] : 'unknown'}{' '}
                    <span className="board-rank" title="Rank">
                      {row.ranks[place]}
                    </span>
                  </td>
                ))}
                <td>
                  <b>{Number(row.points.toFixed(2))}</b>
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </div>
  )
}

interface HeadingProps {
  readonly column: ScoreColumn
  readonly isLast: boolean
  readonly onWeight: (weight: string) => void
  readonly onRemove: () => void
}

function Heading({ column, isLast, onWeight, onRemove }: HeadingProps) {
  const over = column.over_rpm
  return (
    <th scope="col">
      {column.title}
      {isLast ? null : (
        <button
          type="button"
          className="link quiet"
          aria-label={`Remove ${column.title}`}
          title="Take this column off"
          onClick={onRemove}
        >
          {' '}
          ×
        </button>
      )}
      <div className="quiet">
        {over ? `${over.map((rpm) => rpm.toFixed(0)).join('–')} rpm, ` : ''}
        {column.better === 'lower' ? 'least' : 'most'} is best
      </div>
      <InputNumber
        size="small"
        className="board-weight"
        aria-label={`Weight of ${column.title}`}
        min={0}
        max={100}
        step={0.5}
        value={column.weight}
        prefix="×"
        onChange={(weight) => {
          if (weight !== null && weight !== column.weight) onWeight(String(weight))
        }}
      />
    </th>
  )
}
