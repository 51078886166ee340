import type { SpeedBought } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { usePlace } from '../../model/place'

/** What moves the limit of the valve that is lost first, what buys most first. */
export function Bought({ bought }: { bought: readonly SpeedBought[] }) {
  const system = useSessionPart((state) => state.system)
  const { goToField } = usePlace()
  if (bought.length === 0) return null
  return (
    <table className="figures bought">
      <thead>
        <tr>
          <th scope="col">What buys limiting speed</th>
          <th scope="col">Gain</th>
          <th scope="col">Nine of ten</th>
          <th scope="col">What it costs</th>
        </tr>
      </thead>
      <tbody>
        {bought.map((change) => (
          <tr key={change.change}>
            <th scope="row">
              {change.field ? (
                <button
                  type="button"
                  className="link"
                  onClick={() => goToField(change.field?.field ?? '')}
                >
                  {change.change}
                </button>
              ) : (
                change.change
              )}
              {change.from && change.to ? (
                <>
                  {' '}
                  <span className="quiet whole">
                    {change.from[system]} → {change.to[system]}
                  </span>
                </>
              ) : null}
            </th>
            <td className={isSure(change) ? (change.gain_rpm > 0 ? 'ok' : 'fails') : ''}>
              {signed(change.gain_rpm)} rpm
            </td>
            <td>
              {signed(change.gain_band_rpm[0] ?? 0)} to {signed(change.gain_band_rpm[1] ?? 0)}
              {isSure(change) ? '' : ': not sure'}
            </td>
            <td>
              {change.price ? <b>{change.price[system]}. </b> : null}
              {change.moves.map((moved) => (
                <span key={moved.what}>
                  <span className="whole">
                    {moved.what} {moved.from[system]} → {moved.to[system]}
                  </span>
                  ;{' '}
                </span>
              ))}
              {change.costs}
              {change.why ? <span className="quiet">. {change.why}</span> : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Nine of ten draws agree on the sign. */
function isSure({ gain_band_rpm: [low = 0, high = 0] }: SpeedBought): boolean {
  return low > 0 || high < 0
}

function signed(rpm: number): string {
  return `${rpm < 0 ? '−' : '+'}${String(Math.abs(Math.round(rpm)))}`
}
