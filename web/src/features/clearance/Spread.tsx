import type { ToleranceLimit } from '../../api/client'
import { percent } from '../../model/figures'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { pictureOf } from './tolerances'

const WIDTH = 150
const HEIGHT = 34

/** One limit under the tolerances: its spread with what is needed, how likely it fails, what drives it, what would help. */
export function Spread({ limit }: { limit: ToleranceLimit }) {
  const { goToField } = usePlace()
  const system = useSessionPart((state) => state.system)
  const [low, middle, high] = limit.percentiles.map((shown) => shown[system])
  return (
    <li className="spread">
      <Bars limit={limit} />
      <div>
        <b>{limit.title}</b>: {limit.fails_as_given ? 'fails as things are given; ' : ''}
        {limit.says}
        {limit.in_full ? <span className="quiet"> (computed in full)</span> : null}
        {limit.by_runs ? <span className="quiet"> (spread of the runs in full)</span> : null}
        <div className="quiet">
          needs {limit.shown.need[system]}; {middle} in the middle, {low} to {high} in 98 of 100
          cylinders
        </div>
        <div className="quiet">
          {limit.drivers.slice(0, 3).map(({ field, label, share }, place) => (
            <span key={label}>
              {place > 0 ? ', ' : 'by '}
              <button type="button" className="link" onClick={() => goToField(field)}>
                {label}
              </button>{' '}
              {percent(share, 0)}
            </span>
          ))}
        </div>
        {limit.remedy ? (
          <div className="quiet">
            For 1 engine in 100:{' '}
            {limit.remedy.hold
              ? `hold ${limit.remedy.label} to ${limit.remedy.hold[system]}, or have `
              : `${limit.remedy.label} alone does not bring it there: have `}
            {limit.remedy.more[system]} more margin
          </div>
        ) : null}
      </div>
    </li>
  )
}

/** Bars of the spread; those beyond the need are hatched by tone and stand behind its line. */
function Bars({ limit }: { limit: ToleranceLimit }) {
  const picture = pictureOf(limit)
  return (
    <svg
      className="spread-bars"
      width={WIDTH}
      height={HEIGHT}
      role="img"
      aria-label={`${limit.title}: ${limit.says}`}
    >
      {picture.bars.map(({ at, width, height }) => (
        <rect
          key={at}
          className={picture.fails(at + width / 2) ? 'beyond' : 'within'}
          x={WIDTH * at}
          width={Math.max(WIDTH * width - 0.4, 0.6)}
          y={HEIGHT - 3 - (HEIGHT - 6) * height}
          height={(HEIGHT - 6) * height}
        />
      ))}
      <line className="ground" x1="0" x2={WIDTH} y1={HEIGHT - 3} y2={HEIGHT - 3} />
      {picture.needs.map((at) => (
        <line key={at} className="need" x1={WIDTH * at} x2={WIDTH * at} y1="0" y2={HEIGHT} />
      ))}
    </svg>
  )
}
