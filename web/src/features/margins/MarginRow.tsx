import { memo } from 'react'
import type { LimitReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { key } from './order'
import { Why } from './Why'
import { inSentence } from '../fields/labels'

interface Props {
  readonly limit: LimitReport
  readonly open: boolean
  readonly onToggle: (name: string) => void
  readonly onGoTo: (field: string) => void
}

/** How a need is said: by the bounds it has. */
function wordOf({ min, max }: LimitReport['need']): string {
  if (typeof min === 'number') return typeof max === 'number' ? 'wants' : 'needs'
  return 'up to'
}

/** One limit: have against need on a bar, what is left in words, and why on request. */
export const MarginRow = memo(function MarginRow({ limit, open, onToggle, onGoTo }: Props) {
  const system = useSessionPart((state) => state.system)
  const shown = limit.shown
  return (
    <li className={`margin ${limit.verdict}`}>
      <button
        type="button"
        className="margin-head"
        aria-expanded={open}
        onClick={() => onToggle(key(limit))}
      >
        <span className="margin-title">{limit.title}</span>
        <span className="verdict">{limit.verdict}</span>
        {shown ? (
          <>
            <Bar have={shown.have_at} need={shown.need_at} />
            <span className="quiet">
              {shown.have[system]} · {wordOf(limit.need)} {shown.need[system]}
            </span>
            <span className="left-over">{shown.margin[system]}</span>
          </>
        ) : (
          <span className="quiet missing">
            {limit.missing.length > 0
              ? `measure or give ${limit.missing.map((named) => inSentence(named.label)).join('; ')}`
              : limit.note?.[system]}
          </span>
        )}
        {shown && limit.computed ? (
          <span className="quiet estimate">
            with the gas as computed
            {limit.estimate ? `; ${limit.estimate[system]} by estimate` : ''}
          </span>
        ) : null}
        {shown && limit.note ? <span className="quiet estimate">{limit.note[system]}</span> : null}
      </button>
      {open ? <Why limit={limit} onGoTo={onGoTo} /> : null}
    </li>
  )
})

function Bar({ have, need }: { have: number; need: readonly number[] }) {
  return (
    <svg className="bar" viewBox="0 0 100 8" preserveAspectRatio="none" aria-hidden="true">
      <rect className="bar-bed" x="0" y="2" width="100" height="4" />
      <rect className="bar-have" x="0" y="2" width={have * 100} height="4" />
      {need.map((at) => (
        <rect
          key={at}
          className="bar-need"
          x={Math.min(99.2, at * 100)}
          y="0"
          width="0.9"
          height="8"
        />
      ))}
    </svg>
  )
}
