import { useEffect, useState } from 'react'

const KEY = 'upper-lobe.dark'

/** Dark or light: as chosen before, else as the system prefers. */
export function useDark(): [boolean, (dark: boolean) => void] {
  const [dark, setDark] = useState(() => {
    const chosen = kept()
    return chosen === null ? window.matchMedia('(prefers-color-scheme: dark)').matches : chosen === 'yes'
  })
  useEffect(() => { document.documentElement.dataset['theme'] = dark ? 'dark' : 'light' }, [dark])
  const choose = (next: boolean) => {
    keep(next)
    setDark(next)
  }
  return [dark, choose]
}

// A browser may forbid a page to keep anything: the choice then holds until the page is closed.

function kept(): string | null {
  try {
    return localStorage.getItem(KEY)
  } catch {
    return null
  }
}

function keep(dark: boolean): void {
  try {
    localStorage.setItem(KEY, dark ? 'yes' : 'no')
  } catch {
    // Nothing is lost but the choice.
  }
}
