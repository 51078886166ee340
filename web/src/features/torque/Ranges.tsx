import { Fragment } from 'react'
import type { CurveReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { inSentence } from '../fields/labels'
import { placeOf } from './energy'

/** Figures of the curve beside the range of engines of their kind; one that lies outside names the inputs to look at. */
export function Ranges({ figures }: { figures: CurveReport['figures'] }) {
  const system = useSessionPart((state) => state.system)
  const { goToField } = usePlace()
  if (figures.length === 0) return null
  const odd = figures.filter((figure) => figure.odd)
  return (
    <section className="ranges" aria-label="Beside engines of its kind">
      <h3>
        Beside engines of its kind{' '}
        <span className={odd.length > 0 ? 'state tight' : 'quiet'}>
          {odd.length > 0 ? `${String(odd.length)} odd` : 'nothing odd'}
        </span>
      </h3>
      {odd.map((figure) => (
        <p key={figure.id} role="status">
          <b>{figure.title}</b> is {figure.shown[system]}, where engines of its kind have{' '}
          {figure.shown_range[0]?.[system]} to {figure.shown_range[1]?.[system]}. Look at{' '}
          {figure.look_at.map(({ field, label }, place) => (
            <Fragment key={field}>
              {place > 0 ? ', ' : ''}
              <button type="button" className="link" onClick={() => goToField(field)}>
                {inSentence(label)}
              </button>
            </Fragment>
          ))}
          .
        </p>
      ))}
      <ul>
        {figures.map((figure) => (
          <li key={figure.id}>
            <span>
              {figure.title} <span className="quiet">at {Math.round(figure.rpm)} rpm</span>
            </span>
            <span className={figure.odd ? 'figure odd' : 'figure'}>{figure.shown[system]}</span>
            <span className="range" aria-hidden="true">
              <i style={{ left: `${String(100 * placeOf(figure))}%` }} />
            </span>
            <span className="quiet">
              {figure.shown_range[0]?.[system]} to {figure.shown_range[1]?.[system]}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}
