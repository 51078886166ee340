import type { BecauseReport, UnitSystem } from '../../api/client'

/** A first cam by the card rules of the trade, decision by decision, each with its reason. */
export function FirstCam({
  because,
  system,
}: {
  because: readonly BecauseReport[]
  system: UnitSystem
}) {
  if (because.length === 0) return null
  return (
    <details className="folded first-cam">
      <summary>
        First cam by card rules:{' '}
        {because
          .slice(0, 4)
          .map((each) => each.value[system].replace(/ deg$/, ''))
          .join(' / ')}{' '}
        deg
        <span className="quiet"> (intake, exhaust, separation, centreline)</span>
      </summary>
      <dl>
        {because.map((each) => (
          <div key={each.decision}>
            <dt>{each.decision}</dt>
            <dd>
              <b>{each.value[system]}</b> <span className="quiet">{each.why[system]}.</span>
            </dd>
          </div>
        ))}
      </dl>
      <p className="quiet">Common practice, no source: where one begins, not where one ends.</p>
    </details>
  )
}
