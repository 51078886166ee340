import type { OrderCard, Shown, UnitSystem } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { spoken } from '../fields/labels'

/** Each lobe's events, durations and lifts: as asked, as to be ground, as running. */
export function Lobes({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  const hasCome = order.lines.some(({ delivered }) => delivered)
  const columns = (['asked', 'ground', 'running', 'delivered'] as const).filter(
    (of) => of !== 'delivered' || hasCome,
  )
  const labels = [...new Set(order.lines.map(({ label }) => label))]
  const cell = (label: string, side: string, of: (typeof columns)[number]) =>
    order.lines.find((line) => line.label === label && line.side === side)?.[of]?.[system] ?? ''
  const sides = ['intake', 'exhaust'] as const
  const words = {
    asked: 'asked',
    ground: 'to be ground',
    running: 'running',
    delivered: 'as it came',
  }
  return (
    <table className="figures">
      <thead>
        <tr>
          <td />
          {sides.map((side) => (
            <th key={side} scope="colgroup" colSpan={columns.length}>
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

/** What is bought with it, where it is on its way, and what is left of the budget. */
export function Parts({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  if (order.parts.length === 0) return null
  return (
    <table className="figures order-parts">
      <caption>With it</caption>
      <tbody>
        {order.parts.map((part) => (
          <tr key={`${part.kind} ${part.name} ${part.price?.inch ?? ''}`}>
            <th scope="row">{part.kind}</th>
            <td>{part.name}</td>
            <td>{spoken(part.state)}</td>
            <td>{[part.lead_time, part.note].filter(Boolean).join(', ')}</td>
            <td>{part.price?.[system] ?? ''}</td>
          </tr>
        ))}
        {sumsOf(order, system).map(([label, amount]) => (
          <tr key={label}>
            <th scope="row" colSpan={4}>
              {label}
            </th>
            <td>
              <b>{amount}</b>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** The sums of the bill, each with its word. Pure. */
function sumsOf({ bill }: OrderCard, system: UnitSystem): [string, string][] {
  if (!bill) return []
  const sums: [string, Shown | null | undefined][] = [
    ['Together', bill.total],
    ['Ordered or here', bill.spent],
    ['Still to buy', bill.left],
    ['Budget', bill.budget],
    ['Over it by', bill.over],
  ]
  const shown = sums.flatMap(([label, amount]): [string, string][] =>
    amount ? [[label, amount[system]]] : [],
  )
  return bill.unpriced > 0
    ? [...shown, ['Without a price', `${String(bill.unpriced)} parts`]]
    : shown
}

/** What never goes together, what it drags along, and the work that is planned. */
export function GoesWith({ order }: { order: OrderCard }) {
  const system = useSessionPart((state) => state.system)
  const { conflicts, drags_along: drags, machining } = order
  return (
    <div className="order-lists">
      {conflicts.length > 0 ? (
        <section>
          <h3>Never together</h3>
          <ul>
            {conflicts.map((own) => (
              <li key={own.title} className="fault">
                {own.title}: {own.have[system]}, has to be {own.need[system]}; {own.why}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {drags && drags.length > 0 ? (
        <section>
          <h3>What it drags along</h3>
          <ul>
            {drags.map((own) => (
              <li key={own.what}>
                {own.what}: {own.why}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {machining.length > 0 ? (
        <section>
          <h3>Machining</h3>
          <ul>
            {machining.map((own) => (
              <li key={own.what}>
                {own.what}: preload by {own.preload[system]}; {own.then}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
    </div>
  )
}
