import { memo, useState } from 'react'
import type { LimitReport, UnitSystem } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { inSentence } from '../fields/labels'
import type { Margin } from './order'
import { wordOf } from './order'
import { Why } from './Why'

interface Props {
  readonly margin: Margin
  readonly open: boolean
  readonly onToggle: (id: string) => void
  readonly onGoTo: (field: string) => void
}

/** One rule, both valves in one row: a mark for each on the bar, the worse one in words, why on request. */
export const MarginRow = memo(function MarginRow({ margin, open, onToggle, onGoTo }: Props) {
  const system = useSessionPart((state) => state.system)
  const { worst } = margin
  return (
    <li className={`margin ${worst.verdict}`}>
      <button
        type="button"
        className="margin-head"
        aria-expanded={open}
        onClick={() => onToggle(margin.id)}
      >
        <span className="margin-title" title={margin.title}>
          {margin.title}
        </span>
        <span className="verdict">{worst.verdict}</span>
        <Bar margin={margin} />
        <Figures margin={margin} system={system} />
        <Chance margin={margin} />
      </button>
      {open ? <Sides margin={margin} onGoTo={onGoTo} /> : null}
    </li>
  )
})

function Figures({ margin, system }: { margin: Margin; system: UnitSystem }) {
  const { worst, limits } = margin
  if (!worst.shown) {
    const needs = worst.missing.map((named) => inSentence(named.label)).join(', ')
    const text = needs === '' ? (worst.note?.[system] ?? '') : `measure ${needs}`
    return (
      <span className="quiet line missing" title={text}>
        {text}
      </span>
    )
  }
  const have = (limit: LimitReport) => limit.shown?.have[system] ?? 'unknown'
  const text = `${wordOf(worst.need)} ${worst.shown.need[system]} · ${haves(limits.map(have))}${worst.computed ? ', computed' : ''}`
  return (
    <>
      <span className="quiet line" title={text}>
        {text}
      </span>
      <span className="left-over">{worst.shown.margin[system]}</span>
    </>
  )
}

/** How likely it fails, of the valve likelier to, where tolerances were drawn and it can. */
function Chance({ margin }: { margin: Margin }) {
  const likelier = margin.limits.reduce((most, limit) =>
    (limit.chance?.any ?? 0) > (most.chance?.any ?? 0) ? limit : most,
  )
  const { chance } = likelier
  if (!chance || chance.any === 0) return null
  return <span className="quiet line chance">{chance.says} under the tolerances</span>
}

/** What both valves have, the unit once. */
function haves(texts: readonly string[]): string {
  const [one = '', other] = texts
  if (other === undefined || other === one) return one
  const unit = / \S+$/.exec(other)?.[0] ?? ''
  return `${unit !== '' && one.endsWith(unit) ? one.slice(0, -unit.length) : one}, ${other}`
}

/** Why, of the worse side first; the other is one click away. */
function Sides({ margin, onGoTo }: { margin: Margin; onGoTo: (field: string) => void }) {
  const [side, setSide] = useState<LimitReport['side']>()
  const shown = margin.limits.find((limit) => limit.side === side) ?? margin.worst
  return (
    <>
      {margin.limits.length > 1 ? (
        <div className="sides" role="radiogroup" aria-label="Which valve">
          {margin.limits.map((limit) => (
            <button
              key={limit.side}
              type="button"
              role="radio"
              aria-checked={limit === shown}
              className={limit === shown ? 'chosen' : ''}
              onClick={() => setSide(limit.side)}
            >
              {limit.side}, {limit.verdict}
            </button>
          ))}
        </div>
      ) : null}
      <Why key={shown.side} limit={shown} onGoTo={onGoTo} />
    </>
  )
}

/** The bar from bound to bound: what is needed, and a mark for what each valve has. */
function Bar({ margin }: { margin: Margin }) {
  const need = margin.worst.shown?.need_at ?? []
  return (
    <svg className="bar" viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
      <rect className="bar-bed" x="0" y="3.5" width="100" height="3" />
      {need.map((at) => (
        <rect
          key={at}
          className="bar-need"
          x={Math.min(99.2, at * 100)}
          y="0"
          width="0.8"
          height="10"
        />
      ))}
      {margin.limits.map(({ side, shown }) =>
        shown ? (
          <rect
            key={side ?? 'both'}
            className={`bar-have ${side ?? ''}`}
            x={Math.min(97.6, Math.max(0, shown.have_at * 100 - 1.2))}
            y="1"
            width="2.4"
            height="8"
          />
        ) : null,
      )}
    </svg>
  )
}
