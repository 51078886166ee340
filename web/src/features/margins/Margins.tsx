import { Segmented } from 'antd'
import { useCallback, useMemo, useState } from 'react'
import type { LimitReport } from '../../api/client'
import { useHeld } from '../../model/held'
import type { SessionState } from '../../model/state'
import { useSessionPart } from '../../model/useSession'
import { MarginRow } from './MarginRow'
import { MeasureNextList } from './MeasureNextList'
import { openedMargin } from './opened'
import type { Margin, Order } from './order'
import { inOrder, isMet, marginsOf, tallyOf } from './order'
import './margins.css'

const ORDERS: readonly { value: Order; label: string }[] = [
  { value: 'tightest', label: 'tightest first' },
  { value: 'place', label: 'by place' },
]

/** A drag moves the candidate many times a second, its margins only when the hand rests. */
const shown = ({ answer }: SessionState) => answer?.analysis.candidates[0]

const NO_LIMITS: readonly LimitReport[] = []

interface Props {
  /** The step at hand, as limits name their place. */
  readonly step: string
  readonly onGoTo: (field: string) => void
}

/** Every rule, always in sight: what is not met stands open, what is met is folded, and what was opened stays where it is. */
export function Margins({ step, onGoTo }: Props) {
  const limits = useSessionPart((state) => shown(state)?.limits) ?? NO_LIMITS
  const next = useSessionPart((state) => shown(state)?.measure_next)
  const open = useHeld(openedMargin)
  const [order, setOrder] = useState<Order>('tightest')
  const [here, setHere] = useState(false)
  const [unfolded, setUnfolded] = useState(false)
  const toggle = useCallback((id: string) => {
    openedMargin.set(openedMargin.read() === id ? undefined : id)
  }, [])
  const all = useMemo(() => marginsOf(limits), [limits])
  const own = all.filter(({ worst }) => worst.place === step)
  const margins = inOrder(here ? own : all, order)
  const folds = (margin: Margin) => isMet(margin) && (unfolded || margin.id !== open)
  const met = margins.filter(folds)
  const rows = (shown: readonly Margin[]) => (
    <ul>
      {shown.map((margin) => (
        <MarginRow
          key={margin.id}
          margin={margin}
          open={open === margin.id}
          onToggle={toggle}
          onGoTo={onGoTo}
        />
      ))}
    </ul>
  )
  return (
    <aside className="margins" aria-label="Margins">
      <div className="margins-top">
        <h2>Margins</h2>
        <select
          aria-label="Order of the margins"
          value={order}
          onChange={(event) => setOrder(event.target.value as Order)}
        >
          {ORDERS.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </div>
      <Segmented
        size="small"
        aria-label="Which margins"
        options={[
          { value: 'all', label: `all ${String(all.length)}` },
          { value: 'here', label: `this step ${String(own.length)}` },
        ]}
        value={here ? 'here' : 'all'}
        onChange={(value) => setHere(value === 'here')}
      />
      <p className="quiet tally">
        {margins.length === 0 ? (here ? 'No margin belongs to this step.' : '') : tallyOf(margins)}
      </p>
      {rows(margins.filter((margin) => !folds(margin)))}
      {met.length > 0 ? (
        <button
          type="button"
          className="met"
          aria-expanded={unfolded}
          onClick={() => setUnfolded(!unfolded)}
        >
          <b>{met.length} met</b>
          <span className="quiet">{unfolded ? 'fold' : 'show'}</span>
        </button>
      ) : null}
      {unfolded ? rows(met) : null}
      {next ? <MeasureNextList entries={next} onGoTo={onGoTo} /> : null}
      <p className="quiet caution">
        A planning aid: the maker's instructions and a competent machinist's measurement stand above
        it.
      </p>
    </aside>
  )
}
