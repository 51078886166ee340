import { useLayoutEffect, useRef } from 'react'
import { useLook } from '../../model/useLook'
import type { Ink } from './paint'
import { inkOf } from './paint'

interface Props {
  readonly width: number
  readonly height: number
  readonly label: string
  /** Draws the whole picture; a new function means a new picture. */
  readonly paint: (pen: CanvasRenderingContext2D, ink: Ink) => void
}

/** A picture that changes with every step of a drag: pixels cost the page no layout. */
export function Canvas({ width, height, label, paint }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const look = useLook()
  useLayoutEffect(() => {
    const element = canvas.current
    const pen = element?.getContext('2d')
    if (!element || !pen || width <= 0) return
    const dense = window.devicePixelRatio
    const [across, down] = [Math.round(width * dense), Math.round(height * dense)]
    if (element.width !== across || element.height !== down) {
      element.width = across
      element.height = down
    }
    pen.setTransform(dense, 0, 0, dense, 0, 0)
    paint(pen, inkFor(look))
  }, [width, height, look, paint])
  return <canvas ref={canvas} style={{ width, height }} role="img" aria-label={label} />
}

let kept: { look: string; ink: Ink } | undefined

function inkFor(look: string): Ink {
  if (kept?.look !== look) kept = { look, ink: inkOf(getComputedStyle(document.documentElement)) }
  return kept.ink
}
