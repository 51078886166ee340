import { useCallback, useMemo, useState } from 'react'
import type { Zoom } from './geometry'
import { WHOLE } from './geometry'
import type { TraceName } from './traces'

export interface StripView {
  /** Tall with readings, zoom and a trace below; slim is lifts, piston, cursor and events alone. */
  readonly tall: boolean
  readonly onTall: () => void
  readonly zoom: Zoom
  readonly onZoom: (change: (now: Zoom) => Zoom) => void
  readonly trace: TraceName
  readonly onTrace: (trace: TraceName) => void
}

const KEY = 'upper-lobe.tall-strip'

/** How the strip is looked at: zoom and trace hold everywhere, its height is remembered by step. */
export function useStripView(step: string, tallAtFirst: boolean): StripView {
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>(read)
  const [zoom, onZoom] = useState<Zoom>(WHOLE)
  const [trace, onTrace] = useState<TraceName>('gap')
  const tall = chosen[step] ?? tallAtFirst
  const onTall = useCallback(() => {
    const next = { ...chosen, [step]: !tall }
    setChosen(next)
    keep(next)
  }, [chosen, step, tall])
  return useMemo(() => ({ tall, onTall, zoom, onZoom, trace, onTrace }), [tall, onTall, zoom, trace])
}

function read(): Record<string, boolean> {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '{}')
    if (typeof kept !== 'object' || kept === null) return {}
    return Object.fromEntries(Object.entries(kept).filter((entry): entry is [string, boolean] => typeof entry[1] === 'boolean'))
  } catch {
    return {}
  }
}

function keep(chosen: Readonly<Record<string, boolean>>): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(chosen))
  } catch {
    // A browser that keeps nothing shows each step at its usual height again.
  }
}
