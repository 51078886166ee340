import type { KeyboardEvent, PointerEvent, RefCallback } from 'react'
import { useCallback, useEffect, useRef } from 'react'
import { scrub } from '../../model/scrub'
import type { Frame } from './geometry'
import { degOf } from './geometry'

/** Mouse, touch, wheel and keys on the plot: move the crank, zoom. */
export function useScrubGestures(frame: Frame, zoom: (centre: number, factor: number) => void) {
  const latest = useRef({ frame, zoom })
  useEffect(() => {
    latest.current = { frame, zoom }
  })
  const element = useRef<HTMLDivElement | null>(null)
  const onWheel = useCallback((event: WheelEvent) => {
    event.preventDefault()
    const now = latest.current
    now.zoom(degOf(now.frame, event.offsetX), event.deltaY > 0 ? 1.25 : 0.8)
  }, [])
  // The wheel must be stopped from scrolling the page, which React's own listener cannot do.
  const ref: RefCallback<HTMLDivElement> = useCallback(
    (node) => {
      element.current?.removeEventListener('wheel', onWheel)
      node?.addEventListener('wheel', onWheel, { passive: false })
      element.current = node
    },
    [onWheel],
  )
  const move = (event: PointerEvent<HTMLDivElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left
    scrub.to(Math.min(719.9, Math.max(0, degOf(frame, event.clientX - left))))
  }
  return {
    ref,
    tabIndex: 0,
    role: 'slider',
    'aria-label': 'Crank angle',
    'aria-valuemin': 0,
    'aria-valuemax': 720,
    'aria-valuenow': Math.round(scrub.read()),
    onPointerDown: (event: PointerEvent<HTMLDivElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId)
      move(event)
    },
    onPointerMove: (event: PointerEvent<HTMLDivElement>) => {
      if (event.buttons === 1) move(event)
    },
    onKeyDown: (event: KeyboardEvent<HTMLDivElement>) => {
      const step = event.shiftKey ? 10 : 1
      const actions: Record<string, () => void> = {
        ArrowLeft: () => {
          scrub.to(scrub.read() - step)
        },
        ArrowRight: () => {
          scrub.to(scrub.read() + step)
        },
        Home: () => {
          scrub.to(0)
        },
        End: () => {
          scrub.to(719.9)
        },
        '+': () => {
          zoom(scrub.read(), 0.7)
        },
        '-': () => {
          zoom(scrub.read(), 1.4)
        },
        '0': () => {
          zoom(360, 1000)
        },
      }
      const action = actions[event.key]
      if (action) {
        event.preventDefault()
        action()
        event.currentTarget.setAttribute('aria-valuenow', String(Math.round(scrub.read())))
      }
    },
  }
}
