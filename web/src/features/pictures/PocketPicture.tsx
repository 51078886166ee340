import { TakeSvg } from './TakeSvg'
import type { DrawingReport, ValveDrawing } from '../../api/client'

type Side = 'intake' | 'exhaust'

/** The bore seen from below, valves and pockets at their places: x to the exhaust side, y along the crank. */
export function PocketPicture({ drawing, side }: { drawing: DrawingReport; side: Side }) {
  const reach = drawing.bore_mm / 2 + 6
  return (
    <figure className="picture">
      <svg
        viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
        role="img"
        aria-label={`Places of the ${side} valve and its pocket in the bore`}
      >
        <circle className="bore" r={drawing.bore_mm / 2} />
        <line className="trace-zero" x1={-reach} x2={reach} y1={0} y2={0} />
        <line className="trace-zero" y1={-reach} y2={reach} x1={0} x2={0} />
        {(['intake', 'exhaust'] as const).map((name) => (
          <Head key={name} valve={drawing[name]} name={name} strong={name === side} />
        ))}
        <text className="small" x={reach - 1} y={-2} textAnchor="end">
          x
        </text>
        <text className="small" x={2} y={-reach + 5}>
          y
        </text>
      </svg>
      <figcaption className="quiet">
        Bore from below. Dashed: pocket. <TakeSvg name={`${side}-pocket`} />
      </figcaption>
    </figure>
  )
}

function Head({ valve, name, strong }: { valve: ValveDrawing; name: Side; strong: boolean }) {
  if (typeof valve.offset_mm !== 'number' || typeof valve.offset_y_mm !== 'number') return null
  const places: [number, number][] = [[valve.offset_mm, valve.offset_y_mm]]
  if (valve.second_mm) places.push([valve.second_mm[0] ?? 0, valve.second_mm[1] ?? 0])
  return (
    <g className={`${name}-head ${strong ? 'strong' : ''}`}>
      {places.map(([x, y]) => (
        <circle key={`${x} ${y}`} cx={x} cy={-y} r={valve.head_mm / 2} />
      ))}
      {valve.pocket ? (
        <circle
          className="pocket"
          cx={valve.pocket.offset_mm}
          cy={-valve.pocket.offset_y_mm}
          r={valve.pocket.diameter_mm / 2}
        />
      ) : null}
    </g>
  )
}
