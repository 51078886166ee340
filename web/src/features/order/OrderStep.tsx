import { Button } from 'antd'
import type { OrderCard } from '../../api/client'
import { answered, client } from '../../api/client'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'
import { Needs } from '../fields/Needs'
import { download } from '../pictures/export'
import { printOnly } from '../sheet/printOnly'
import { useRevision } from '../sheet/useRevision'
import { LobeDrawing } from './LobeDrawing'
import './order.css'
import { sheetOf } from './orderSheet'
import { Facts, GoesWith, Lobes, Parts } from './OrderTables'
import { useOrder } from './useOrder'

/** The order card a grinder works from, on screen as it is on paper: two pages at most. */
export function OrderStep() {
  const card = useOrder()
  const work = useSession()
  const candidate = useCandidate()?.id ?? ''
  const system = useSessionPart((state) => state.system)
  const revision = useRevision()
  if (card.error)
    return (
      <p className="fault" role="alert">
        {card.error.message}
      </p>
    )
  if (!card.data) return <p className="quiet">Writing the order…</p>
  const order = card.data
  const workbook = async () => {
    const blob = await answered(
      client.POST('/api/order/workbook', {
        body: { document: work.read().history.present, candidate, revision, system },
        parseAs: 'blob',
      }),
    )
    download(`${file}.xlsx`, blob, '')
  }
  const file = `${order.build} ${order.candidate} order, revision ${revision}`
  // Paper and files are of what stands in the document, never of what stood there before the last edit.
  const isLate = card.isPlaceholderData
  return (
    <>
      <div className="order-tools no-print">
        <Button type="primary" disabled={isLate} onClick={() => printOnly('order-card')}>
          Print this order
        </Button>
        <Button
          disabled={isLate}
          onClick={() => download(`${file}.csv`, sheetOf(order, revision, system), 'text/csv')}
        >
          CSV
        </Button>
        <Button disabled={isLate} onClick={() => void workbook()}>
          XLSX
        </Button>
        <Button
          disabled={isLate}
          onClick={() =>
            download(`${file}.json`, `${JSON.stringify(order, null, 2)}\n`, 'application/json')
          }
        >
          JSON
        </Button>
        {order.missing.length > 0 ? (
          <Needs what="A grinder has all that is asked" reason="" needs={order.missing} />
        ) : (
          <span className="quiet">A grinder has all that is asked.</span>
        )}
      </div>
      <article className="order-card" aria-label="Order card">
        <header>
          <div>
            <h2>Camshaft order</h2>
            <p>
              {order.build}, {order.candidate}. Revision {revision},{' '}
              {new Date().toLocaleDateString()}.
            </p>
          </div>
          <LobeDrawing />
        </header>
        {order.lines.length === 0 ? (
          <p>The lobes are not known yet: give their card at the step Lobe.</p>
        ) : (
          <Lobes order={order} />
        )}
        <Facts order={order} />
        <Parts order={order} />
        <GoesWith order={order} />
        <Lists order={order} />
      </article>
    </>
  )
}

function Lists({ order }: { order: OrderCard }) {
  return (
    <div className="order-lists">
      <section>
        <h3>When it comes</h3>
        <ol>
          {order.checklist.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ol>
      </section>
      <section>
        <h3>Mind</h3>
        <ul>
          {order.cautions.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
        <p className="to-fill">Notes:</p>
      </section>
    </div>
  )
}
