import { useEffect, useRef, useState } from 'react'

/** `value`, passed on at once when it rests and at most every `pause` milliseconds while it keeps changing. */
export function useCalm<T>(value: T, pause: number): T {
  const [calm, setCalm] = useState(value)
  const last = useRef(0)
  useEffect(() => {
    const wait = Math.max(0, last.current + pause - performance.now())
    const timer = setTimeout(() => {
      last.current = performance.now()
      setCalm(() => value)
    }, wait)
    return () => {
      clearTimeout(timer)
    }
  }, [value, pause])
  return calm
}
