import type { MeasureNext } from '../../api/client'
import { useMeasure } from '../bench/useMeasure'
import { inSentence } from '../fields/labels'

/** Most entries shown: a person measures a few things at a time. */
const MOST = 6

/** What is unknown or only assumed, what settles most first. */
export function MeasureNextList({
  entries,
  onGoTo,
}: {
  entries: readonly MeasureNext[]
  onGoTo: (field: string) => void
}) {
  if (entries.length === 0) return null
  return (
    <section className="next" aria-label="What to measure next">
      <h2>Measure next</h2>
      <ol>
        {entries.slice(0, MOST).map((entry) => (
          <li key={entry.field}>
            <button type="button" className="link" onClick={() => onGoTo(entry.field)}>
              {entry.label}
            </button>
            {entry.session ? <MeasureIt kind={entry.session} label={entry.label} /> : null}
            <span className="quiet">
              {' '}
              {entry.value === '' ? 'unknown' : `assumed ${entry.value}`}; {settles(entry.settles)}
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}

function settles(titles: readonly string[]): string {
  const [first = ''] = titles
  return titles.length > 1
    ? `${inSentence(first)} and ${titles.length - 1} more rest on it`
    : `${inSentence(first)} rests on it`
}

/** To the bench, with the session that measures it begun. */
function MeasureIt({ kind, label }: { kind: string; label: string }) {
  const measure = useMeasure()
  return (
    <>
      {' '}
      <button
        type="button"
        className="link quiet"
        aria-label={`Measure ${label}`}
        onClick={() => measure(kind)}
      >
        measure it
      </button>
    </>
  )
}
