import type { OrderCard } from '../../api/client'
import { useSessionPart } from '../../model/useSession'

/** Each lobe's events, durations and lifts: as asked, as to be ground, as running. */
export function Lobes({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  const labels = [...new Set(order.lines.map(({ label }) => label))]
  const cell = (label: string, side: string, of: 'asked' | 'ground' | 'running') =>
    order.lines.find((line) => line.label === label && line.side === side)?.[of]?.[system] ?? ''
  const sides = ['intake', 'exhaust'] as const
  const columns = ['asked', 'ground', 'running'] as const
  const words = { asked: 'asked', ground: 'to be ground', running: 'running' }
  return (
    <table className="figures">
      <thead>
        <tr>
          <td />
          {sides.map((side) => (
            <th key={side} scope="colgroup" colSpan={3}>
              {side === 'intake' ? 'Intake' : 'Exhaust'}
            </th>
          ))}
        </tr>
        <tr>
          <td />
          {sides.flatMap((side) =>
            columns.map((of) => (
              <th key={`${side} ${of}`} scope="col">
                {words[of]}
              </th>
            )),
          )}
        </tr>
      </thead>
      <tbody>
        {labels.map((label) => (
          <tr key={label}>
            <th scope="row">{label}</th>
            {sides.flatMap((side) =>
              columns.map((of) => (
                <td key={`${side} ${of}`} className={of}>
                  {cell(label, side, of)}
                </td>
              )),
            )}
          </tr>
        ))}
      </tbody>
      <caption>
        Heights are lobe lift, inches; degrees are crank degrees. To be ground: so that it runs as
        asked with this train's lost motion and flex. Say which of the two you order.
      </caption>
    </table>
  )
}

/** What holds for the whole cam; what nobody gave is left to be filled in. */
export function Facts({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  return (
    <dl className="order-facts">
      {order.facts.map(({ label, value, assumed }) => (
        <div key={label}>
          <dt>{label}</dt>
          <dd>
            {value[system]}
            {assumed ? <span className="quiet"> assumed</span> : null}
          </dd>
        </div>
      ))}
      {order.missing.map(({ field, label }) => (
        <div key={field}>
          <dt>{label}</dt>
          <dd className="to-fill">to be given</dd>
        </div>
      ))}
    </dl>
  )
}

/** What is bought with it. */
export function Parts({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  if (order.parts.length === 0) return null
  return (
    <table className="figures order-parts">
      <caption>With it</caption>
      <tbody>
        {order.parts.map((part) => (
          <tr key={`${part.kind} ${part.name}`}>
            <th scope="row">{part.kind}</th>
            <td>{part.name}</td>
            <td>{part.price?.[system] ?? ''}</td>
          </tr>
        ))}
        {order.total ? (
          <tr>
            <th scope="row">Together</th>
            <td />
            <td>
              <b>{order.total[system]}</b>
            </td>
          </tr>
        ) : null}
      </tbody>
    </table>
  )
}
