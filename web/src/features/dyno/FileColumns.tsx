import { Select } from 'antd'
import type { Holds, Mapped, PullColumn } from '../../api/client'
import { holdingAnother, HOLDS, inAnotherUnit } from './pulls'

interface Props {
  readonly columns: readonly PullColumn[]
  readonly onMap: (mapped: Mapped[]) => void
}

/** What each column of a file holds, with its first cells: put right once, remembered for the next file of that heading. */
export function FileColumns({ columns, onMap }: Props) {
  return (
    <div className="wide-table">
      <table className="figures file-columns">
        <thead>
          <tr>
            <th scope="col">Column</th>
            <th scope="col">Holds</th>
            <th scope="col">Unit</th>
            <th scope="col">Begins</th>
          </tr>
        </thead>
        <tbody>
          {columns.map((own, place) => (
            <tr key={place} className={own.holds === 'nothing' ? 'quiet' : ''}>
              <th scope="row">
                {own.name} {own.written === '' ? '' : `(${own.written})`}
              </th>
              <td>
                <Select<Holds>
                  size="small"
                  aria-label={`${own.name} holds`}
                  value={own.holds}
                  options={[...HOLDS]}
                  onChange={(holds) => onMap(holdingAnother(columns, place, holds))}
                />
              </td>
              <td>
                {own.units.length > 0 ? (
                  <Select
                    size="small"
                    aria-label={`Unit of ${own.name}`}
                    status={own.unit === '' ? 'error' : ''}
                    value={own.unit}
                    options={own.units.map((unit) => ({ value: unit, label: unit }))}
                    onChange={(unit) => onMap(inAnotherUnit(columns, place, unit))}
                  />
                ) : null}
              </td>
              <td>{own.cells.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
