import { useEffect, useEffectEvent, useRef, useState } from 'react'
import type { LiveLine } from '../../api/client'
import { answered, client } from '../../api/client'
import { keep, kept } from '../../model/keep'
import { useInstruments } from '../bench/useInstruments'
import { useLive } from '../bench/useLive'

type Points = readonly (readonly [number, number])[]

/** A dyno that is listened to: which, what it reads, the pull that is being run, and the file of one that is over. */
export interface DynoLive {
  readonly names: readonly string[]
  readonly name: string | undefined
  readonly choose: (name: string) => void
  readonly line: LiveLine | undefined
  /** Speed and torque of the pull that is being run, or of the last one. */
  readonly points: Points
}

const PLACE = 'upper-lobe.dyno'

/** Listens to a dyno as long as this is on screen; `onPull` hears each pull that is over, once. */
export function useDynoLive(onPull: (file: string) => void): DynoLive {
  const { all } = useInstruments()
  const names = all.filter(({ format }) => format.measures === 'pull').map((own) => own.name)
  const [chosen, setChosen] = useState(() => kept(PLACE))
  const name = names.find((own) => own === chosen)
  const line = useLive(name)
  const points = usePoints(line)
  useEnded(name, line?.dyno?.pulls, onPull)
  const choose = (to: string) => {
    setChosen(to)
    keep(PLACE, to)
  }
  return { names, name, choose, line, points }
}

/** The points of the pull that is being run; those of the last one until the next begins. */
function usePoints(line: LiveLine | undefined): Points {
  const [points, setPoints] = useState<Points>([])
  const wasPulling = useRef(false)
  const dyno = line?.dyno
  const { rpm, torque_nm: torque, pulling } = dyno ?? {}
  useEffect(() => {
    if (rpm === undefined || torque === undefined) return
    const begins = pulling === true && !wasPulling.current
    wasPulling.current = pulling === true
    if (pulling) setPoints((before) => [...(begins ? [] : before), [rpm, torque]])
  }, [rpm, torque, pulling])
  return points
}

/** Each pull that ends while it is listened to is heard once; those before are not. */
function useEnded(
  name: string | undefined,
  pulls: number | undefined,
  onPull: (file: string) => void,
): void {
  const seen = useRef<{ name: string; pulls: number }>(undefined)
  const tell = useEffectEvent(onPull)
  useEffect(() => {
    if (name === undefined || pulls === undefined) return
    const before = seen.current?.name === name ? seen.current.pulls : pulls
    seen.current = { name, pulls }
    if (pulls <= before) return
    void answered(
      client.GET('/api/instruments/{name}/pull', { params: { path: { name } }, parseAs: 'text' }),
    ).then(tell, () => undefined)
  }, [name, pulls])
}
