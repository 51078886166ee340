import type { RefObject } from 'react'
import { useEffect, useState } from 'react'

/** Inner width of an element, in whole pixels. */
export function useWidth(holder: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(800)
  useEffect(() => {
    const element = holder.current
    if (!element) return undefined
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setWidth(Math.max(320, Math.floor(entry.contentRect.width)))
    })
    observer.observe(element)
    return () => {
      observer.disconnect()
    }
  }, [holder])
  return width
}
