import { plain, readAngle } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { barsOf } from './budget'
import { SIDES, useTrain } from './useTrain'

/** Lift from the card to the running valve, a bar for each thing that changes it. */
export function LiftBudget() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  if (!train) return null
  return (
    <div className="budgets">
      {SIDES.map((side) => (
        <figure key={side} className="budget">
          <figcaption>
            <b>{side === 'intake' ? 'Intake' : 'Exhaust'}</b>{' '}
            <span className="quiet">{train[side].origin}</span>
          </figcaption>
          <ol>
            {barsOf(train[side].budget).map(({ step, from, to, sense }, place) => (
              <li key={step.id}>
                <span>{step.label}</span>
                <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
                  <rect
                    className={`budget-${sense} ${side}`}
                    x={100 * from}
                    y="1"
                    width={Math.max(0.6, 100 * (to - from))}
                    height="8"
                  />
                </svg>
                <span className="figure">{step.shown[system]}</span>
                <span className="figure quiet">{place === 0 ? '' : step.change[system]}</span>
              </li>
            ))}
          </ol>
          <p className="quiet">
            Lost motion, lash and flex together: opens {readAngle(train[side].opens_later_deg)}{' '}
            later and closes {readAngle(train[side].closes_earlier_deg)} earlier than rigid parts at
            .050 of lobe lift; true ratio {plain(train[side].true_ratio, 3)}.
          </p>
        </figure>
      ))}
    </div>
  )
}
