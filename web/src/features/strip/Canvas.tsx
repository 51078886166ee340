import { useLayoutEffect, useRef } from 'react'
import { useLook } from '../../model/useLook'
import type { Ink, Pen } from './paint'
import { inkOf } from './paint'

interface Props {
  readonly width: number
  readonly height: number
  /** What it shows; without it, it is an ornament of what lies over it. */
  readonly label?: string
  /** Fits the sheet and draws the whole picture; a new function means a new picture. */
  readonly paint: (sheet: HTMLCanvasElement, pen: Pen, dense: number, ink: Ink) => void
}

/** A picture drawn in the page: pixels cost it no layout. */
export function Canvas({ width, height, label, paint }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const look = useLook()
  useLayoutEffect(() => {
    const element = canvas.current
    const pen = element?.getContext('2d')
    if (element && pen && width > 0) paint(element, pen, window.devicePixelRatio, inkFor(look))
  }, [width, look, paint])
  return (
    <canvas
      ref={canvas}
      style={{ width, height }}
      {...(label === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': label })}
    />
  )
}

let kept: { look: string; ink: Ink } | undefined

/** The style sheet's colours, read anew only when the look changes. */
export function inkFor(look: string): Ink {
  if (kept?.look !== look) kept = { look, ink: inkOf(getComputedStyle(document.documentElement)) }
  return kept.ink
}
