import { Button, Checkbox, Select } from 'antd'
import { useEffect, useEffectEvent, useRef, useState } from 'react'
import type { LiveLine } from '../../api/client'
import { keep, kept } from '../../model/keep'
import { Instruments } from './Instruments'
import { useInstruments } from './useInstruments'
import { useLive } from './useLive'

interface Props {
  /** Hears what stands on the instrument, as a field takes it; nothing while it is none. */
  readonly onLive: (text: string | undefined) => void
  /** Takes what it came to rest at. */
  readonly onRest: (text: string) => void
}

const NONE = ''

/** Which instrument reads, how it stands, and whether a reading is taken when it rests. */
export function LiveReading({ onLive, onRest }: Props) {
  const { all: everything } = useInstruments()
  // A dyno is listened to on its own page.
  const all = everything.filter(({ format }) => format.measures !== 'pull')
  const [name, setName] = useState(() => kept(PLACE) ?? NONE)
  const [byItself, setByItself] = useState(() => kept(BY_ITSELF) === 'yes')
  const [isOpen, setOpen] = useState(false)
  const known = all.some((own) => own.name === name) ? name : undefined
  const line = useLive(known)
  useRested(line, byItself, onRest)
  const text = line?.state === 'live' ? (line.text ?? undefined) : undefined
  const tell = useEffectEvent(onLive)
  useEffect(() => {
    tell(text)
  }, [text])
  const choose = (to: string) => {
    setName(to)
    keep(PLACE, to)
  }
  return (
    <div className="live no-print">
      {all.length > 0 ? (
        <Select
          aria-label="Instrument"
          size="small"
          value={known ?? NONE}
          popupMatchSelectWidth={false}
          options={[
            { value: NONE, label: 'typed by hand' },
            ...all.map((own) => ({ value: own.name, label: own.name })),
          ]}
          onChange={choose}
        />
      ) : null}
      {line ? (
        <>
          <output className="live-now" aria-label="On the instrument">
            {standing(line)}
          </output>
          <Checkbox
            checked={byItself}
            onChange={(event) => {
              setByItself(event.target.checked)
              keep(BY_ITSELF, event.target.checked ? 'yes' : 'no')
            }}
          >
            take when it rests
          </Checkbox>
        </>
      ) : null}
      {line?.says ? <span className="quiet">{saysOf(line)}</span> : null}
      <Button size="small" type="text" onClick={() => setOpen(true)}>
        Instruments
      </Button>
      {isOpen ? <Instruments onClose={() => setOpen(false)} /> : null}
    </div>
  )
}

/** How it stands. Pure. */
function standing({ state, text }: LiveLine): string {
  if (state === 'away') return 'away'
  if (state === 'silent' || !text) return 'silent'
  return text
}

/** What was wrong last. Pure. */
function saysOf({ state, rubbish, says }: LiveLine): string {
  return state === 'away' || rubbish === 0
    ? (says ?? '')
    : `${String(rubbish)} lines were no reading: ${says ?? ''}`
}

/** Each rest anew is taken once; where it rested before it was looked at is not. */
function useRested(
  line: LiveLine | undefined,
  byItself: boolean,
  onRest: (text: string) => void,
): void {
  const seen = useRef<number>(undefined)
  const take = useEffectEvent(onRest)
  const rests = line?.rests
  const rested = line?.rested
  useEffect(() => {
    if (rests === undefined) {
      seen.current = undefined
      return
    }
    const isNew = seen.current !== undefined && rests > seen.current
    seen.current = rests
    if (isNew && byItself && rested) take(rested)
  }, [rests, rested, byItself])
}

const PLACE = 'upper-lobe.instrument'
const BY_ITSELF = 'upper-lobe.instrument-by-itself'
