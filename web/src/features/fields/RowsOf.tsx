import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import type { FormColumn } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { spoken } from './labels'
import { SelectingInput } from './SelectingInput'

/** Rows drawn without a window of their own. */
export const PLAIN = 40

/** Height of a row, px, as the style sheet sets it. */
const ROW = 26

interface RowsProps {
  readonly label: string
  readonly columns: readonly FormColumn[]
  readonly rows: readonly (readonly string[])[]
  readonly onType: (place: number, column: number, text: string) => void
  readonly onEnter: () => void
  readonly onEscape: () => void
}

/** All rows of a short table; of a long one those in its window, between two spacers. */
export function RowsOf({ label, columns, rows, onType, onEnter, onEscape }: RowsProps) {
  const frame = useRef<HTMLDivElement>(null)
  const isLong = rows.length > PLAIN
  // eslint-disable-next-line react-hooks/incompatible-library -- what it returns is read in this render only
  const all = useVirtualizer({
    count: rows.length,
    enabled: isLong,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    overscan: 12,
  })
  const items = isLong
    ? all.getVirtualItems().map((item) => item.index)
    : rows.map((_, place) => place)
  const above = isLong ? (all.getVirtualItems()[0]?.start ?? 0) : 0
  const below = isLong ? all.getTotalSize() - (all.getVirtualItems().at(-1)?.end ?? 0) : 0
  return (
    <div ref={frame} className={isLong ? 'rows-window' : undefined}>
      <table aria-rowcount={rows.length}>
        <thead>
          <tr>
            {columns.map((column) => (
              <Heading key={column.label} column={column} />
            ))}
          </tr>
        </thead>
        <tbody>
          {above > 0 ? (
            <tr aria-hidden="true">
              <td colSpan={columns.length} style={{ height: above }} />
            </tr>
          ) : null}
          {items.map((place) => (
            <tr key={place} aria-rowindex={place + 1}>
              {columns.map((column, at) => (
                <td key={column.label}>
                  <Cell
                    label={`${label}, row ${place + 1}, ${column.label}`}
                    column={column}
                    text={rows[place]?.[at] ?? ''}
                    onType={(text) => onType(place, at, text)}
                    onEnter={onEnter}
                    onEscape={onEscape}
                  />
                </td>
              ))}
            </tr>
          ))}
          {below > 0 ? (
            <tr aria-hidden="true">
              <td colSpan={columns.length} style={{ height: below }} />
            </tr>
          ) : null}
        </tbody>
      </table>
    </div>
  )
}

function Heading({ column }: { column: FormColumn }) {
  const unit = useSessionPart((state) =>
    state.system === 'inch' ? column.unit_inch : column.unit_metric,
  )
  return (
    <th scope="col">
      {column.label} <span className="quiet">{unit}</span>
    </th>
  )
}

interface CellProps {
  readonly label: string
  readonly column: FormColumn
  readonly text: string
  readonly onType: (text: string) => void
  readonly onEnter: () => void
  readonly onEscape: () => void
}

function Cell({ label, column, text, onType, onEnter, onEscape }: CellProps) {
  if (column.choices.length > 0) {
    return (
      <select aria-label={label} value={text} onChange={(event) => onType(event.target.value)}>
        <option value=""> </option>
        {column.choices.map((word) => (
          <option key={word} value={word}>
            {spoken(word)}
          </option>
        ))}
      </select>
    )
  }
  return (
    <SelectingInput
      type="text"
      aria-label={label}
      value={text}
      autoComplete="off"
      spellCheck={false}
      onChange={(event) => onType(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          onEnter()
          below(event.currentTarget)?.focus()
        }
        if (event.key === 'Escape') onEscape()
      }}
    />
  )
}

/** The cell of the next row in the same column: at a bench one reading follows the other. */
function below(cell: HTMLInputElement): HTMLInputElement | undefined {
  const row = cell.closest('tr')
  const inputs = (of: Element | null | undefined) => [...(of?.querySelectorAll('input') ?? [])]
  return inputs(row?.nextElementSibling)[inputs(row).indexOf(cell)]
}
