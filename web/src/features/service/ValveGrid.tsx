import { useState } from 'react'
import type { FormField } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { useFaultText } from '../fields/faults'
import { SelectingInput } from '../fields/SelectingInput'
import type { Read, Valve } from './entries'
import { READ, textOf, valveName, valvesOf } from './entries'

interface Props {
  readonly entry: string
  readonly readings: Partial<Record<Read, FormField>>
  readonly cylinders: number
}

/** Every valve with what was read of it; an empty cell was not read. */
export function ValveGrid({ entry, readings, cylinders }: Props) {
  const columns = READ.flatMap((key) => readings[key] ?? [])
  const valves = valvesOf(cylinders, readings)
  return (
    <div className="wide-table">
      <table className="figures valve-grid" aria-label="Readings, valve by valve">
        <thead>
          <tr>
            <th scope="col">Cylinder</th>
            <th scope="col">Side</th>
            {columns.map((field) => (
              <th key={field.field} scope="col" title={field.help}>
                {field.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {valves.map((valve) => (
            <tr key={valveName(valve)} className={valve.side}>
              <th scope="row">{valve.side === 'intake' ? valve.cylinder : ''}</th>
              <td>{valve.side}</td>
              {columns.map((field) => (
                <td key={field.field}>
                  <Cell entry={entry} field={field} valve={valve} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {columns.flatMap((field) =>
        valves.map((valve) => <Refusal key={keyOf(field, valve)} field={field} valve={valve} />),
      )}
    </div>
  )
}

interface CellProps {
  readonly entry: string
  readonly field: FormField
  readonly valve: Valve
}

/** One reading. It is an edit of its own: whoever reads on is not held up by the answer to the last one. */
function Cell({ entry, field, valve }: CellProps) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  const key = keyOf(field, valve)
  const refused = useSessionPart((state) => state.refusals[key])
  const [draft, setDraft] = useState<string>()
  const rows = field.table?.rows ?? []
  const text = textOf(rows, valve)
  const typed = typeof refused?.typed === 'string' ? refused.typed : undefined
  const column = field.table?.columns[2]
  const unit = system === 'inch' ? column?.unit_inch : column?.unit_metric
  const commit = () => {
    if (draft === undefined) return
    if (draft.trim() === text) {
      session.forget(key)
      setDraft(undefined)
      return
    }
    const table = field.field.split('.').at(-1) ?? ''
    const edit = { read_valve: { entry, table, ...valve, text: draft } }
    void session.type(key, draft, edit).then(() => {
      setDraft((now) => (now === draft ? undefined : now))
    })
  }
  return (
    <SelectingInput
      aria-label={`${field.label}, ${valveName(valve)}`}
      aria-invalid={refused !== undefined}
      value={draft ?? typed ?? text}
      placeholder={unit}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Escape') {
          setDraft(undefined)
          session.forget(key)
        }
        if (event.key !== 'Enter') return
        event.preventDefault()
        // Leaving it writes it down; the last one is left for nothing.
        const next = below(event.currentTarget)
        if (next) next.focus()
        else event.currentTarget.blur()
      }}
    />
  )
}

/** What a refused reading of a valve is kept under. */
function keyOf(field: FormField, valve: Valve): string {
  return `${field.field} ${valveName(valve)}`
}

/** The same column's cell of the next valve: readings are taken down a bank. */
function below(input: HTMLInputElement): HTMLInputElement | null {
  const cell = input.closest('td')
  const row = cell?.parentElement?.nextElementSibling
  const place = cell ? [...(cell.parentElement?.children ?? [])].indexOf(cell) : -1
  return row?.children[place]?.querySelector('input') ?? null
}

function Refusal({ field, valve }: { field: FormField; valve: Valve }) {
  const refused = useSessionPart((state) => state.refusals[keyOf(field, valve)])
  const fault = useFaultText(refused, field.field)
  return fault === undefined ? null : (
    <p className="fault" role="alert">
      {field.label}, {valveName(valve)}: {fault}
    </p>
  )
}
