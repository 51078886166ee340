import type { DecisionReport, UnitSystem } from '../../api/client'

const WIDTH = 120
const HEIGHT = 26

/** What else a decision moves: what is left over of limits along it, and at the place looked at. */
export function Reserves({
  decision,
  at,
  system,
}: {
  decision: DecisionReport
  at: number
  system: UnitSystem
}) {
  if (decision.reserves.length === 0) return null
  return (
    <table className="figures reserves">
      <thead>
        <tr>
          <th scope="col">Left over at {decision.value_shown[at]?.[system]}</th>
          <th scope="col">Along it</th>
          <th scope="col">Left</th>
          <th scope="col">Within</th>
        </tr>
      </thead>
      <tbody>
        {decision.reserves.map((reserve) => (
          <tr key={reserve.title}>
            <th scope="row">{reserve.title}</th>
            <td>
              <Along left={reserve.left} at={at} />
            </td>
            <td className={(reserve.left[at] ?? 0) < 0 ? 'fails' : ''}>
              {reserve.left_shown[at]?.[system]}
            </td>
            <td className="quiet">{reserve.off_shown[system]}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** A small line with its zero, where one is in sight. */
function Along({ left, at }: { left: readonly number[]; at: number }) {
  const [low, high] = [Math.min(...left), Math.max(...left)]
  const y = (value: number) => 3 + ((HEIGHT - 6) * (high - value)) / Math.max(high - low, 1e-9)
  const x = (place: number) => (WIDTH * place) / Math.max(left.length - 1, 1)
  const path = left.map(
    (value, i) => `${i === 0 ? 'M' : 'L'}${x(i).toFixed(1)},${y(value).toFixed(1)}`,
  )
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true">
      {low < 0 && high > 0 ? (
        <line className="sweep-zero" x1={0} x2={WIDTH} y1={y(0)} y2={y(0)} />
      ) : null}
      <path className="sweep-average_torque" d={path.join('')} />
      <circle className="reserve-at" cx={x(at)} cy={y(left[at] ?? 0)} r={3} />
    </svg>
  )
}
