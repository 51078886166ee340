import type { TolerancedField } from '../../api/client'
import { percent } from '../../model/figures'
import { usePlace } from '../../model/place'
import { useSession, useSessionPart } from '../../model/useSession'
import { TextField } from '../fields/TextField'

/** What each way of sharing means, in words. */
const SHARED: Readonly<Record<string, string>> = {
  cylinder: 'each cylinder its own',
  bank: 'a bank in common',
  engine: 'one engine in common',
}

/** How far every field is taken to be off; each can be said otherwise. */
export function TolerancedFields({ fields }: { fields: readonly TolerancedField[] }) {
  return (
    <details className="folded">
      <summary>
        Plus-minus of {fields.length} fields
        <span className="quiet">
          {' '}
          by where each value is from; {fields.filter(({ is_own: own }) => own).length} said here
        </span>
      </summary>
      <table className="figures tolerances">
        <thead>
          <tr>
            <th scope="col">field</th>
            <th scope="col">value from</th>
            <th scope="col">plus-minus</th>
            <th scope="col">shared by</th>
            <th scope="col">drives at most</th>
          </tr>
        </thead>
        <tbody>
          {fields.map((own) => (
            <Row key={own.field} own={own} />
          ))}
        </tbody>
      </table>
    </details>
  )
}

function Row({ own }: { own: TolerancedField }) {
  const session = useSession()
  const { goToField } = usePlace()
  const system = useSessionPart((state) => state.system)
  const key = `tolerance ${own.field}`
  const refused = useSessionPart((state) => state.refusals[key])
  const shown = own.plus_minus[system].replace('± ', '')
  return (
    <tr>
      <th scope="row">
        <button type="button" className="link" onClick={() => goToField(own.field)}>
          {own.label}
        </button>
      </th>
      <td>{own.is_own ? 'said here' : own.source}</td>
      <td>
        <TextField
          label=""
          ariaLabel={`Plus-minus of ${own.label}`}
          value={shown}
          refused={refused}
          onForget={() => session.forget(key)}
          onCommit={(text) =>
            session.type(key, text, {
              tolerance: { field: own.field, plus_minus: text, shape: null, shared: null },
            })
          }
        />
        {own.is_own ? (
          <button
            type="button"
            className="link quiet"
            onClick={() =>
              session.edit({
                tolerance: { field: own.field, plus_minus: '', shape: null, shared: null },
              })
            }
          >
            usual again
          </button>
        ) : null}
      </td>
      <td>{SHARED[own.shared] ?? own.shared}</td>
      <td>{percent(own.drives, 0)}</td>
    </tr>
  )
}
