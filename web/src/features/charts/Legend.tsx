import type { Axis, Curve } from './series'
import { readable } from './readable'

interface Props {
  readonly curves: readonly Curve[]
  readonly data: readonly (readonly (number | null | undefined)[])[]
  readonly place: number | null
  readonly x: Axis
}

/** What each line is, above the chart where nothing collides, with its value at the place looked at. */
export function Legend({ curves, data, place, x }: Props) {
  const at = place === null ? undefined : data[0]?.[place]
  return (
    <div className="legend" aria-live="off">
      {typeof at === 'number' ? (
        <span className="legend-at">
          {readable(at)} {x.unit}
        </span>
      ) : null}
      {curves.map((curve, index) => {
        if (curve.quiet) return null
        const value = place === null ? undefined : data[index + 1]?.[place]
        return (
          <span key={curve.name}>
            <i
              className={`swatch ${curve.ink} ${curve.beside ? 'beside' : ''} ${curve.dots ? 'dots' : ''}`}
            />{' '}
            {curve.name}
            {typeof value === 'number' ? <b> {readable(value)}</b> : null}
          </span>
        )
      })}
    </div>
  )
}
