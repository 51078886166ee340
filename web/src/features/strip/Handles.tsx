import type { KeyboardEvent, PointerEvent } from 'react'
import { memo, useRef } from 'react'
import type { EventHandle } from '../../api/client'
import { useSession } from '../../model/useSession'
import type { Frame } from './geometry'
import { degOf, xOf } from './geometry'

/** Drags and nudges land on half degrees: a degree wheel reads no finer. */
const SNAP = 0.5

/** The four events as handles under the strip: intake above, exhaust below, so that both can be held at overlap. */
export function Handles({
  frame,
  handles,
  candidate,
}: {
  frame: Frame
  handles: readonly EventHandle[]
  candidate: string
}) {
  return (
    <div className="handles">
      {handles
        .filter((handle) => handle.crank_deg >= frame.from && handle.crank_deg <= frame.to)
        .map((handle) => (
          <Handle key={handle.event} frame={frame} handle={handle} candidate={candidate} />
        ))}
    </div>
  )
}

const Handle = memo(function Handle({
  frame,
  handle,
  candidate,
}: {
  frame: Frame
  handle: EventHandle
  candidate: string
}) {
  const session = useSession()
  const held = useRef<{ offset: number; to: number; moved: boolean } | undefined>(undefined)
  const isIntake = handle.event.startsWith('intake')
  const edit = (crank_deg: number) => ({
    move_event: { candidate, event: handle.event, crank_deg },
  })
  const place = (event: PointerEvent<HTMLButtonElement>, offset: number) => {
    const plot = event.currentTarget.parentElement
    const x = event.clientX - (plot?.getBoundingClientRect().left ?? 0) - offset
    return Math.round(degOf(frame, x) / SNAP) * SNAP
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const direction =
      event.key === 'ArrowLeft' || event.key === 'ArrowDown'
        ? -1
        : event.key === 'ArrowRight' || event.key === 'ArrowUp'
          ? 1
          : 0
    if (direction === 0) return
    event.preventDefault()
    const step = event.shiftKey ? 5 : SNAP
    session.edit(edit(Math.round((handle.crank_deg + direction * step) / SNAP) * SNAP))
  }
  return (
    <button
      type="button"
      className={`handle ${isIntake ? 'intake' : 'exhaust'}`}
      style={{ transform: `translateX(${xOf(frame, handle.crank_deg) - 15}px)` }}
      role="slider"
      aria-label={`${handle.label} at .050`}
      aria-valuenow={handle.quoted_deg}
      aria-valuetext={`${handle.quoted_deg.toFixed(1)} degrees ${handle.reference}`}
      title={`${handle.label} ${handle.quoted_deg.toFixed(1)} ${handle.reference}: drag, or arrow keys for half a degree`}
      onKeyDown={onKeyDown}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId)
        const plot = event.currentTarget.parentElement?.getBoundingClientRect().left ?? 0
        held.current = {
          offset: event.clientX - plot - xOf(frame, handle.crank_deg),
          to: handle.crank_deg,
          moved: false,
        }
      }}
      onPointerMove={(event) => {
        const now = held.current
        if (!now) return
        const to = place(event, now.offset)
        if (to === now.to) return
        now.to = to
        now.moved = true
        session.preview(edit(to))
      }}
      onPointerUp={() => {
        const now = held.current
        held.current = undefined
        if (now?.moved) session.edit(edit(now.to))
      }}
      onPointerCancel={() => {
        held.current = undefined
        session.settle()
      }}
    >
      {handle.short}
    </button>
  )
})
