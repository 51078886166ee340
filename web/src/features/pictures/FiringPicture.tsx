import { useSessionPart } from '../../model/useSession'
import { TakeSvg } from './TakeSvg'
import { pulsesOf } from './firing'

const WIDTH = 330
const LEFT = 62

/** Which cylinder fires when, and how the pulses follow each other in each collector. */
export function FiringPicture() {
  const fields = useSessionPart((state) => state.answer?.fields)
  const rows = (field: string) => fields?.find((f) => f.field === field)?.table?.rows ?? []
  const order = rows('engine.firing_order').map((row) => row[0] ?? '')
  const lanes = pulsesOf(
    order,
    rows('engine.exhaust.collector.cylinders').map((row) => (row[0] ?? '').split(' ')),
  )
  if (order.length < 2) return null
  const x = (deg: number) => LEFT + (deg / 720) * (WIDTH - LEFT - 14)
  return (
    <figure className="picture chart">
      <svg
        viewBox={`0 0 ${WIDTH} ${26 + lanes.length * 30}`}
        role="img"
        aria-label={`Firing order ${order.join(' ')}`}
      >
        {lanes.map((lane, row) => (
          <g key={lane.name} transform={`translate(0 ${18 + row * 30})`}>
            <text x="0" y="4">
              {lane.name}
            </text>
            <line className="trace-zero" x1={LEFT} x2={WIDTH} y1="0" y2="0" />
            {lane.pulses.map((pulse) => (
              <g key={pulse.cylinder} className="pulse" transform={`translate(${x(pulse.at)} 0)`}>
                <circle r="9" />
                <text y="4" textAnchor="middle">
                  {pulse.cylinder}
                </text>
              </g>
            ))}
            <text className="quiet" x={WIDTH} y="16" textAnchor="end">
              every {lane.intervals.join(', ')} deg
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="quiet">
        Firing order over two turns, by collector. <TakeSvg name="firing-order" />
      </figcaption>
    </figure>
  )
}
