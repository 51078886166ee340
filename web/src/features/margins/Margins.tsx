import { useCallback, useState } from 'react'
import type { LimitReport } from '../../api/client'
import { useCandidate } from '../session/useSession'
import { MarginRow } from './MarginRow'
import { MeasureNextList } from './MeasureNextList'
import type { Order } from './order'
import { inOrder, isListed, key, tallyOf } from './order'

const ORDERS: readonly { value: Order; label: string }[] = [
  { value: 'tightest', label: 'tightest first' },
  { value: 'place', label: 'by place' },
]

const NO_LIMITS: readonly LimitReport[] = []

/** Every limit, always in sight; what is open stays open while figures move. */
export function Margins({ onGoTo }: { onGoTo: (field: string) => void }) {
  const candidate = useCandidate()
  const [open, setOpen] = useState<string>()
  const [order, setOrder] = useState<Order>('tightest')
  const [onlyBad, setOnlyBad] = useState(false)
  const toggle = useCallback((name: string) => { setOpen((now) => (now === name ? undefined : name)) }, [])
  const limits = candidate?.limits ?? NO_LIMITS
  const listed = inOrder(limits, order).filter((limit) => isListed(limit, onlyBad))
  return (
    <aside className="margins" aria-label="Margins">
      <div className="margins-top">
        <h2>Margins</h2>
        <select aria-label="Order of the margins" value={order} onChange={(event) => { setOrder(event.target.value as Order) }}>
          {ORDERS.map(({ value, label }) => <option key={value} value={value}>{label}</option>)}
        </select>
      </div>
      <p className="quiet tally">
        <span>{tallyOf(limits)}</span>
        <label className="check"><input type="checkbox" checked={onlyBad} onChange={(event) => { setOnlyBad(event.target.checked) }} /> hide ok</label>
      </p>
      <ul>
        {listed.map((limit) => (
          <MarginRow key={key(limit)} limit={limit} open={open === key(limit)} onToggle={toggle} onGoTo={onGoTo} />
        ))}
      </ul>
      {limits.length > 0 && listed.length === 0 ? <p className="quiet">Every margin is met with room.</p> : null}
      {candidate ? <MeasureNextList entries={candidate.measure_next} onGoTo={onGoTo} /> : null}
      <p className="quiet caution">A planning aid: the maker's instructions and a competent machinist's measurement stand above it.</p>
    </aside>
  )
}
