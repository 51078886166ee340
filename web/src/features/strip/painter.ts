import type { Ink } from './paint'
import type { Picture } from './picture'

/** What the painting worker is told of the sheet `id`. */
export type Told =
  | { readonly id: number; readonly sheet: OffscreenCanvas }
  | { readonly id: number; readonly picture: Picture; readonly dense: number; readonly ink: Ink }
  | { readonly id: number; readonly gone: true }

/** A canvas that is drawn beside the page. */
export interface Easel {
  paint(picture: Picture, dense: number, ink: Ink): void
  /** The canvas has left the page. */
  leave(): void
}

let worker: Worker | undefined
let last = 0
let isAble = typeof OffscreenCanvas !== 'undefined' && typeof Worker !== 'undefined'

/** Whether pictures can be drawn beside the page at all. */
export function isPainterAble(): boolean {
  return isAble
}

/** Gives a canvas over to the painting worker, once and for good; `onFailed` when that worker cannot be had. */
export function easelFor(canvas: HTMLCanvasElement, onFailed: () => void): Easel {
  worker ??= new Worker(new URL('./painter.worker.ts', import.meta.url), { type: 'module' })
  const own = worker
  last += 1
  const id = last
  const tell = (told: Told, taken: Transferable[] = []) => own.postMessage(told, taken)
  const failed = () => {
    isAble = false
    onFailed()
  }
  own.addEventListener('error', failed)
  const sheet = canvas.transferControlToOffscreen()
  tell({ id, sheet }, [sheet])
  return {
    paint: (picture, dense, ink) => tell({ id, picture, dense, ink }),
    leave: () => {
      own.removeEventListener('error', failed)
      tell({ id, gone: true })
    },
  }
}
