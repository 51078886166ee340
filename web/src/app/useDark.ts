import { useEffect, useState } from 'react'
import { keep, kept } from '../model/keep'

const KEY = 'upper-lobe.dark'

/** Dark or light: as chosen before, else as the system prefers. */
export function useDark(): [boolean, (dark: boolean) => void] {
  const [dark, setDark] = useState(() => {
    const chosen = kept(KEY)
    return chosen === null
      ? window.matchMedia('(prefers-color-scheme: dark)').matches
      : chosen === 'yes'
  })
  useEffect(() => {
    document.documentElement.dataset['theme'] = dark ? 'dark' : 'light'
  }, [dark])
  const choose = (next: boolean) => {
    keep(KEY, next ? 'yes' : 'no')
    setDark(next)
  }
  return [dark, choose]
}
