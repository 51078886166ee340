import { useSyncExternalStore } from 'react'

/** Light or dark, and whether the shipped font has come: both change every picture that is drawn on a canvas. */
export function useLook(): string {
  return useSyncExternalStore(watchLook, readLook)
}

function readLook(): string {
  return `${document.documentElement.dataset['theme'] ?? ''} ${document.fonts.status}`
}

function watchLook(changed: () => void): () => void {
  const themes = new MutationObserver(changed)
  themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
  document.fonts.addEventListener('loadingdone', changed)
  return () => {
    themes.disconnect()
    document.fonts.removeEventListener('loadingdone', changed)
  }
}
