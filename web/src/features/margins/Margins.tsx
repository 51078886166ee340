import { useCallback, useState } from 'react'
import { useCandidate } from '../session/useSession'
import { MarginRow } from './MarginRow'
import { key, tightestFirst } from './order'

/** Every limit, tightest first, always in sight. */
export function Margins({ onGoTo }: { onGoTo: (field: string) => void }) {
  const [open, setOpen] = useState<string>()
  const toggle = useCallback((name: string) => { setOpen((now) => (now === name ? undefined : name)) }, [])
  const limits = tightestFirst(useCandidate()?.limits ?? [])
  const count = (verdict: string) => limits.filter((l) => l.verdict === verdict).length
  return (
    <aside className="margins" aria-label="Margins">
      <h2>Margins <span className="quiet">tightest first</span></h2>
      <p className="quiet tally">{count('fails')} fail, {count('tight')} tight, {count('unknown')} unknown, {count('ok')} ok</p>
      <ul>
        {limits.map((limit) => (
          <MarginRow
            key={key(limit)}
            limit={limit}
            open={open === key(limit)}
            onToggle={toggle}
            onGoTo={onGoTo}
          />
        ))}
      </ul>
      <p className="quiet caution">A planning aid: the maker's instructions and a competent machinist's measurement stand above it.</p>
    </aside>
  )
}
