import type { RefObject } from 'react'
import { useEffect, useState } from 'react'

/** Inner width of an element, in whole pixels, never under `least`; `first` until it is known. */
export function useWidth(holder: RefObject<HTMLElement | null>, first = 800, least = 320): number {
  const [width, setWidth] = useState(first)
  useEffect(() => {
    const element = holder.current
    if (!element) return undefined
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(least, Math.floor(entry.contentRect.width)))
    })
    observer.observe(element)
    return () => {
      observer.disconnect()
    }
  }, [holder, least])
  return width
}
