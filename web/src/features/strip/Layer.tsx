import { useCallback, useLayoutEffect, useRef, useState } from 'react'
import { useLook } from '../../model/useLook'
import { Canvas, inkFor } from './Canvas'
import type { Ink, Pen } from './paint'
import { easelFor, isPainterAble } from './painter'
import type { Easel } from './painter'
import { paintPicture } from './picture'
import type { Picture } from './picture'

interface Props {
  readonly picture: Picture
  readonly label: string
  /** Whether it is drawn at once, in the page: on paper nothing may come a moment later. */
  readonly atOnce?: boolean
}

/** A picture that changes with every step of a drag: drawn by a worker where there is one, else in the page. */
export function Layer({ picture, label, atOnce = false }: Props) {
  const [isAside, setAside] = useState(!atOnce && isPainterAble())
  const onFailed = useCallback(() => setAside(false), [])
  return isAside ? (
    <Aside picture={picture} label={label} onFailed={onFailed} />
  ) : (
    <InPage picture={picture} label={label} />
  )
}

function InPage({ picture, label }: { picture: Picture; label: string }) {
  const paint = useCallback(
    (sheet: HTMLCanvasElement, pen: Pen, dense: number, ink: Ink) =>
      paintPicture(sheet, pen, dense, ink, picture),
    [picture],
  )
  return <Canvas {...sizeOf(picture)} label={label} paint={paint} />
}

interface AsideProps {
  readonly picture: Picture
  readonly label: string
  readonly onFailed: () => void
}

function Aside({ picture, label, onFailed }: AsideProps) {
  const holder = useRef<HTMLDivElement>(null)
  const easel = useRef<Easel | undefined>(undefined)
  const look = useLook()
  const { width, height } = sizeOf(picture)
  // A canvas can be given away only once: each mounting gets its own.
  useLayoutEffect(() => {
    const canvas = document.createElement('canvas')
    holder.current?.append(canvas)
    const own = easelFor(canvas, onFailed)
    easel.current = own
    return () => {
      own.leave()
      canvas.remove()
    }
  }, [onFailed])
  useLayoutEffect(() => {
    if (picture.frame.width > 0)
      easel.current?.paint(picture, window.devicePixelRatio, inkFor(look))
  }, [picture, look, onFailed])
  return (
    <div className="layer" ref={holder} role="img" aria-label={label} style={{ width, height }} />
  )
}

function sizeOf({ frame }: Picture): { width: number; height: number } {
  return { width: frame.width, height: frame.height }
}
