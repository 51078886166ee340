import { readAngle } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'
import { SIDES, useTrain } from './useTrain'

/** What to grind so that what runs is what the card promises. Order, card and running stay apart. */
export function Order() {
  const { train } = useTrain()
  const system = useSessionPart((state) => state.system)
  if (!train) return null
  const sides = SIDES.flatMap((side) =>
    train[side].order ? [{ side, order: train[side].order }] : [],
  )
  if (sides.length === 0) return null
  return (
    <details className="folded">
      <summary>What to order, so that the valve runs as the card says</summary>
      {sides.map(({ side, order }) => (
        <table key={side} className="figures">
          <thead>
            <tr>
              <th scope="col">{side === 'intake' ? 'Intake' : 'Exhaust'}</th>
              <th scope="col">Card</th>
              <th scope="col">Order</th>
              <th scope="col">Then runs at</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">Lobe lift</th>
              <td>{train[side].budget[0]?.shown[system]}</td>
              <td>{order.lobe_lift[system]}</td>
              <td>{order.residual[system]} off at the valve</td>
            </tr>
            {order.checks.map((check) => (
              <tr key={check.height.inch}>
                <th scope="row">at {check.height[system]}</th>
                <td>{readAngle(check.card_deg)}</td>
                <td>{readAngle(check.order_deg)}</td>
                <td>
                  {typeof check.running_deg === 'number'
                    ? readAngle(check.running_deg)
                    : 'taken up by lash and flex'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      <p className="quiet">
        Makers may add for flex themselves: say whether the figures are lobe or valve, and measure
        what came.
      </p>
    </details>
  )
}
