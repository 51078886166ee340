import { percent } from '../../model/figures'
import type { CurveReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Term } from '../glossary/Term'
import { frictionAt, partsAt, spokenParts } from './energy'

/** Where the fuel's heat goes at the speed looked at: one bar, its figures under it. */
export function Energy({ curve, at }: { curve: CurveReport; at: number }) {
  const pressure = useSessionPart(({ answer, system }) => {
    const scales = answer?.analysis.scales
    return system === 'inch' ? scales?.pressure_inch : scales?.pressure_metric
  })
  const rpm = curve.speed_rpm[at]
  const parts = partsAt(curve.energy, at)
  if (rpm === undefined || !pressure) return null
  return (
    <section className="energy" aria-label="Where the fuel's heat goes">
      <h3>
        Where the fuel's heat goes <span className="quiet">at {Math.round(rpm)} rpm</span>
      </h3>
      <div className="energy-bar" role="img" aria-label={spokenParts(parts)}>
        {parts.map(({ key, name, share }) => (
          <span
            key={key}
            className={`part ${key}`}
            style={{ flexGrow: Math.max(share, 0) }}
            title={`${name} ${percent(share)}`}
          >
            {share > 0.06 ? name : ''}
          </span>
        ))}
      </div>
      <dl className="facts energy-facts">
        {parts.map(({ key, name, share }) => (
          <div key={key}>
            <dt>
              <i className={`part ${key}`} aria-hidden="true" /> {name}
            </dt>
            <dd>{percent(share)}</dd>
          </div>
        ))}
      </dl>
      <p className="quiet">
        <Term word="Friction">Friction</Term>{' '}
        {frictionAt(curve.energy.friction_by_part, at, pressure)}.
      </p>
    </section>
  )
}
