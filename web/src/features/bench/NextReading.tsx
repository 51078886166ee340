import { Button } from 'antd'
import { useEffect, useRef, useState } from 'react'
import { LiveReading } from './LiveReading'
import type { Next } from './sessions'
import { asked, readsAlike } from './sessions'
import { Tool } from './Tool'
import type { Taking } from './useTaking'

interface Props {
  readonly taking: Taking
}

/** The next reading, in figures that are read from two metres: type it, Enter for the one after; or the last one once more. */
export function NextReading({ taking }: Props) {
  const { last, fault } = taking
  const [again, setAgain] = useState(false)
  const [read, setRead] = useState<readonly string[]>([])
  const [live, setLive] = useState<string>()
  const form = useRef<HTMLFormElement>(null)
  /** What was taken off the instrument by hand, until it rests. */
  const byHand = useRef<string>(undefined)
  const next = again && last ? last : taking.next
  const columns = next ? asked(next) : []
  useEffect(() => {
    form.current?.querySelector<HTMLInputElement>('.next-cells input')?.focus()
  }, [next?.place, again])
  const inputs = () => [
    ...(form.current?.querySelectorAll<HTMLInputElement>('.next-cells input') ?? []),
  ]
  /** Where the hand is: the cell in focus, or the first that is empty. */
  const cell = () => {
    const focused = inputs().findIndex((input) => input === document.activeElement)
    return focused >= 0 ? focused : columns.findIndex((_, place) => !read[place]?.trim())
  }
  const enter = (texts: readonly string[] = read) => {
    const empty = columns.findIndex((_, place) => !texts[place]?.trim())
    if (!next || empty >= 0) {
      inputs()[empty]?.focus()
      return
    }
    void taking.take(next, texts).then((isTaken) => {
      if (!isTaken) return
      setRead([])
      setAgain(false)
    })
  }
  /** The instrument's reading in the cell at hand; with the last one there, the reading is whole. */
  const put = (text: string) => {
    const at = Math.max(cell(), 0)
    const texts = columns.map((_, i) => (i === at ? text : (read[i] ?? '')))
    setRead(texts)
    enter(texts)
  }
  const back = () => {
    setRead([])
    setAgain(false)
    taking.takeBack?.()
  }
  /** Enter, or the foot switch: what was typed, or else what stands on the instrument. */
  const takeAtHand = () => {
    const at = cell()
    if (live !== undefined && at >= 0 && !read[at]?.trim()) {
      byHand.current = live
      put(live)
    } else enter()
  }
  /** What it came to rest at, unless that is where it was taken by hand a moment before. */
  const rested = (text: string) => {
    const taken = byHand.current
    byHand.current = undefined
    if (taken === undefined || !readsAlike(taken, text)) put(text)
  }
  const repeat = () => {
    setRead([])
    setAgain(true)
  }
  return (
    <form
      ref={form}
      className="next-reading"
      aria-label="Next reading"
      onSubmit={(event) => {
        event.preventDefault()
        takeAtHand()
      }}
    >
      <div>
        <p className="next-says">
          {next ? next.says : 'Everything that is asked for was read.'}{' '}
          {next ? <span className="quiet">{placeOf(next, again)}</span> : null}
        </p>
        {next ? <p className="quiet">{next.tool}</p> : null}
        <div className="next-cells">
          {columns.map((label, place) => (
            <label key={label}>
              <span>{label}</span>
              <input
                type="text"
                inputMode="decimal"
                autoComplete="off"
                value={read[place] ?? ''}
                placeholder={live}
                aria-invalid={fault !== undefined}
                onChange={(event) => {
                  const typed = event.target.value
                  setRead(columns.map((_, i) => (i === place ? typed : (read[i] ?? ''))))
                }}
                onKeyDown={(event) => {
                  // Foot switches send a page down. Enter goes to the cell after; from the last it takes the reading.
                  const after = inputs()[place + 1]
                  if (event.key === 'PageDown') takeAtHand()
                  else if (event.key === 'Enter' && after && read[place]?.trim()) after.focus()
                  else return
                  event.preventDefault()
                }}
              />
            </label>
          ))}
        </div>
        {fault ? (
          <p className="fault" role="alert">
            {fault}
          </p>
        ) : null}
        {next ? <LiveReading onLive={setLive} onRest={rested} /> : null}
        <div className="next-keys no-print">
          {next ? (
            <Button type="primary" size="large" htmlType="submit">
              Next
            </Button>
          ) : null}
          <Button size="large" onClick={back} disabled={!taking.takeBack}>
            Take back
          </Button>
          <Button size="large" onClick={repeat} disabled={!last || again}>
            Once more
          </Button>
        </div>
      </div>
      {next ? <Tool gauge={next.gauge} /> : null}
    </form>
  )
}

/** Which of all it is. Pure. */
function placeOf({ place, of }: Next, again: boolean): string {
  return again ? 'once more' : `${String(place)} of ${String(of)}`
}
