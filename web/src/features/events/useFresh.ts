import { useEffect, useState } from 'react'

/** Milliseconds that a change stays in full colour. */
const FRESH = 8000

/** Whether `value` has changed within the last seconds. */
export function useFresh(value: unknown): boolean {
  const [settled, setSettled] = useState<unknown>()
  useEffect(() => {
    const timer = setTimeout(() => {
      setSettled(value)
    }, FRESH)
    return () => {
      clearTimeout(timer)
    }
  }, [value])
  return settled !== value
}
