import type { KeyboardEvent, PointerEvent } from 'react'
import { useRef, useState } from 'react'
import type { DecisionReport, UnitSystem } from '../../api/client'
import { useWidth } from '../../model/useWidth'
import { nearestTo } from '../charts/series'
import type { Frame } from './sweep'
import { apart, frameOf, lineOf, percent, placeAt, ROOM, roundShares, xOf, yOf } from './sweep'

const HEIGHT = 214

/** Thirds of the band and their mean, each with a stroke of its own. */
const LINES = [
  { key: 'low', word: 'low' },
  { key: 'middle', word: 'middle' },
  { key: 'high', word: 'high' },
  { key: 'average_torque', word: 'average' },
] as const

interface Props {
  readonly decision: DecisionReport
  readonly system: UnitSystem
  /** Where the candidate stands at this moment, while it is dragged anywhere too. */
  readonly live: number
  /** The place looked at. */
  readonly at: number
  readonly onAt: (place: number) => void
  /** While the handle is dragged, and when it is let go. */
  readonly onDrag: (place: number) => void
  readonly onDrop: (place: number) => void
  /** When it is let go where it was taken hold of, or not by the hand. */
  readonly onBack: () => void
}

/** What a decision gives and takes: torque low, in the middle and high over its range, where one stands, what is proposed. */
export function SweepPicture({ decision, system, live, at, onAt, onDrag, onDrop, onBack }: Props) {
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder, 520, 260)
  const frame = frameOf(decision, width, HEIGHT)
  const now = nearestTo(live, decision.value)
  return (
    <div ref={holder} className="sweep">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`${decision.title}: torque over its range`}
        onPointerMove={(event) => {
          const x = event.clientX - event.currentTarget.getBoundingClientRect().left
          onAt(placeAt(frame, decision.value, x))
        }}
        onPointerLeave={() => onAt(now)}
      >
        <Ground frame={frame} decision={decision} />
        {LINES.map(({ key }) => (
          <path
            key={key}
            className={`sweep-${key}`}
            d={lineOf(frame, decision.value, decision[key])}
          />
        ))}
        <Words frame={frame} decision={decision} />
        <Values frame={frame} decision={decision} system={system} />
        <line
          className="sweep-at"
          x1={xOf(frame, decision.value[at] ?? 0)}
          x2={xOf(frame, decision.value[at] ?? 0)}
          y1={ROOM.above}
          y2={HEIGHT - ROOM.below}
        />
        <path
          className="sweep-proposed"
          d={`M${xOf(frame, decision.proposed)},${HEIGHT - ROOM.below - 1}l-6,-9h12z`}
        >
          <title>proposed {decision.proposed_shown[system]}</title>
        </path>
      </svg>
      <Handle {...{ decision, system, frame, live, now, onDrag, onDrop, onBack }} />
    </div>
  )
}

/** What is as good a choice, where limits break, the scales. */
function Ground({ frame, decision }: { frame: Frame; decision: DecisionReport }) {
  const [from, to] = decision.range
  const below = HEIGHT - ROOM.below
  return (
    <>
      <defs>
        <pattern id="sweep-broken" width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M0,6L6,0" className="sweep-hatch" />
        </pattern>
      </defs>
      <rect
        className="sweep-range"
        x={xOf(frame, from ?? 0)}
        width={Math.max(xOf(frame, to ?? 0) - xOf(frame, from ?? 0), 2)}
        y={ROOM.above}
        height={below - ROOM.above}
      />
      {decision.broken.map((limit) => (
        <rect
          key={limit.title}
          fill="url(#sweep-broken)"
          x={xOf(frame, limit.from) - 2}
          width={xOf(frame, limit.to) - xOf(frame, limit.from) + 4}
          y={ROOM.above}
          height={below - ROOM.above}
        >
          <title>{limit.title} does not hold here</title>
        </rect>
      ))}
      {roundShares(frame).map((share) => (
        <g key={share}>
          <line
            className={Math.abs(share) < 1e-9 ? 'sweep-zero' : 'sweep-grid'}
            x1={ROOM.left}
            x2={frame.width - ROOM.right}
            y1={yOf(frame, share)}
            y2={yOf(frame, share)}
          />
          <text
            className="sweep-scale"
            x={ROOM.left - 6}
            y={yOf(frame, share) + 4}
            textAnchor="end"
          >
            {percent(share)}
          </text>
        </g>
      ))}
    </>
  )
}

function Words({ frame, decision }: { frame: Frame; decision: DecisionReport }) {
  const ends = LINES.map(({ key }) => yOf(frame, decision[key].at(-1) ?? 0))
  const placed = apart(ends, 13)
  return LINES.map(({ key, word }, i) => (
    <text
      key={key}
      className={`sweep-word sweep-${key}`}
      x={frame.width - ROOM.right + 6}
      y={(placed[i] ?? 0) + 4}
    >
      {word}
    </text>
  ))
}

/** The ends of the range and what is proposed, below the picture. */
function Values({
  frame,
  decision,
  system,
}: {
  frame: Frame
  decision: DecisionReport
  system: UnitSystem
}) {
  const ends = [0, decision.value.length - 1]
  const proposed = xOf(frame, decision.proposed)
  const isFree = (x: number) => Math.abs(x - proposed) > 90
  return (
    <>
      {ends
        .map((place) => ({ place, x: xOf(frame, decision.value[place] ?? 0) }))
        .filter(({ x }) => isFree(x))
        .map(({ place, x }) => (
          <text key={place} className="sweep-scale" x={x} y={HEIGHT - 10} textAnchor="middle">
            {decision.value_shown[place]?.[system].replace(/ deg.*$/, '')}
          </text>
        ))}
      <text className="sweep-scale" x={proposed} y={HEIGHT - 10} textAnchor="middle">
        proposed {decision.proposed_shown[system].replace(/ deg.*$/, '')}
      </text>
    </>
  )
}

interface HandleProps extends Pick<
  Props,
  'decision' | 'system' | 'live' | 'onDrag' | 'onDrop' | 'onBack'
> {
  readonly frame: Frame
  readonly now: number
}

/** Values of a decision under the hand. */
interface Held {
  readonly from: number
  to: number
  isMoved: boolean
}

/** Where the candidate stands: dragged, or moved by the arrow keys. */
function Handle({ decision, system, frame, live, now, onDrag, onDrop, onBack }: HandleProps) {
  // Where the hand took hold and where it is; `live` follows what is previewed and tells neither.
  const held = useRef<Held | undefined>(undefined)
  const [dragged, setDragged] = useState<number>()
  const value = dragged ?? live
  const place = dragged === undefined ? now : nearestTo(dragged, decision.value)
  const isStill = Math.abs(value - decision.now) < 1e-3
  const shown = isStill ? decision.now_shown : decision.value_shown[place]
  const to = (event: PointerEvent<HTMLButtonElement>) => {
    const left = event.currentTarget.parentElement?.getBoundingClientRect().left ?? 0
    return placeAt(frame, decision.value, event.clientX - left)
  }
  const letGo = (): Held | undefined => {
    const hand = held.current
    held.current = undefined
    setDragged(undefined)
    return hand
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key]
    const next = now + (by ?? 0)
    if (by === undefined || decision.value[next] === undefined) return
    event.preventDefault()
    onDrop(next)
  }
  return (
    <button
      type="button"
      className="sweep-handle"
      role="slider"
      aria-label={decision.title}
      aria-valuemin={decision.value[0]}
      aria-valuemax={decision.value.at(-1)}
      aria-valuenow={value}
      aria-valuetext={shown?.[system] ?? ''}
      style={{ left: xOf(frame, value) }}
      title="Drag, or arrow keys"
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        held.current = { from: value, to: value, isMoved: false }
      }}
      onPointerMove={(event) => {
        const hand = held.current
        const next = decision.value[to(event)]
        if (!hand || next === undefined || next === hand.to) return
        hand.to = next
        hand.isMoved = true
        setDragged(next)
        onDrag(nearestTo(next, decision.value))
      }}
      onPointerUp={() => {
        const hand = letGo()
        if (!hand?.isMoved) return
        // Sharper curves may have come under the hand, with places of their own.
        const [from, last] = [hand.from, hand.to].map((each) => nearestTo(each, decision.value))
        if (last !== undefined && last !== from) onDrop(last)
        else onBack()
      }}
      onPointerCancel={() => {
        if (letGo()) onBack()
      }}
    >
      <span>{shown?.[system]}</span>
    </button>
  )
}
