import { useCallback, useMemo, useState } from 'react'
import { keep, kept } from '../../model/keep'
import type { Held } from '../../model/held'
import { held } from '../../model/held'
import type { Zoom } from './geometry'
import { WHOLE } from './geometry'
import type { TraceName } from './traces'

export interface StripView {
  /** Tall with readings, zoom and a trace below; slim is lifts, piston, cursor and events alone. */
  readonly tall: boolean
  readonly onTall: () => void
  /** Held apart: a wheel moves the zoom many times a second, and only the strip follows. */
  readonly zoom: Held<Zoom>
  readonly trace: Held<TraceName>
}

const KEY = 'upper-lobe.tall-strip'

/** How the strip is looked at: zoom and trace hold everywhere, its height is remembered by step. */
export function useStripView(step: string, tallAtFirst: boolean): StripView {
  const [chosen, setChosen] = useState<Readonly<Record<string, boolean>>>(read)
  const [zoom] = useState(() => held<Zoom>(WHOLE))
  const [everywhere] = useState(() => held<TraceName>('gap'))
  const [ofControl] = useState(() => held<TraceName>('load'))
  // Where the question is whether the valve follows, the load on the lobe is looked at first.
  const trace = step === 'control' ? ofControl : everywhere
  const tall = chosen[step] ?? tallAtFirst
  const onTall = useCallback(() => {
    const next = { ...chosen, [step]: !tall }
    setChosen(next)
    keep(KEY, JSON.stringify(next))
  }, [chosen, step, tall])
  return useMemo(() => ({ tall, onTall, zoom, trace }), [tall, onTall, zoom, trace])
}

/** The heights chosen before; what is kept may be anything. */
function read(): Record<string, boolean> {
  try {
    const found: unknown = JSON.parse(kept(KEY) ?? '{}')
    if (typeof found !== 'object' || found === null) return {}
    return Object.fromEntries(
      Object.entries(found).filter(
        (entry): entry is [string, boolean] => typeof entry[1] === 'boolean',
      ),
    )
  } catch {
    return {}
  }
}
