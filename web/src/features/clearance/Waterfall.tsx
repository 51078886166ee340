import type { GrowthTerm } from '../../api/client'
import { readLength } from '../../model/figures'
import { usePlace } from '../../model/place'
import type { useLengthScale } from '../../model/useSession'
import type { Fall } from './atSpeed'

const ROW = 20
const BAR = 11
const WIDTH = 96

const SIDES = ['intake', 'exhaust'] as const
type Side = (typeof SIDES)[number]

interface Props {
  readonly atRest: Readonly<Record<Side, number>>
  readonly falls: Readonly<Record<Side, readonly Fall[]>>
  readonly scale: NonNullable<ReturnType<typeof useLengthScale>>
}

/** Both gaps on their way from rest to speed: what each term takes or gives back, one below the other. */
export function Waterfall({ atRest, falls, scale }: Props) {
  const { goToField } = usePlace()
  const places = SIDES.flatMap((side) => [atRest[side], ...falls[side].map(({ to }) => to)])
  const most = Math.max(...places, 0) * 1.02
  const bar = (from: number, to: number) => <Bar from={from} to={to} most={most} />
  const nothing = readLength(0, scale)
  const signed = (mm: number) => {
    const text = readLength(Math.abs(mm), scale)
    return text === nothing ? text : `${mm < 0 ? '−' : '+'}${text}`
  }
  const whole = (name: string, of: (side: Side) => number) => (
    <tr>
      <th scope="row">{name}</th>
      {SIDES.map((side) => (
        <Cells key={side} bar={bar(0, of(side))} says={readLength(of(side), scale)} />
      ))}
    </tr>
  )
  return (
    <table className="waterfall">
      <thead>
        <tr>
          <td />
          {SIDES.map((side) => (
            <th key={side} scope="col" colSpan={2} className={`${side}-text`}>
              {side === 'intake' ? 'Intake' : 'Exhaust'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {whole('At rest, cold, by hand', (side) => atRest[side])}
        {terms(falls).map(({ id, name, how, field, is_assumed }) => (
          <tr key={id} title={how}>
            <th scope="row" className={is_assumed ? 'quiet' : ''}>
              {field ? (
                <button type="button" className="link" onClick={() => goToField(field)}>
                  {name}
                </button>
              ) : (
                name
              )}
            </th>
            {SIDES.map((side) => {
              const own = falls[side].find(({ term }) => term.id === id)
              return own ? (
                <Cells key={side} bar={bar(own.from, own.to)} says={signed(own.to - own.from)} />
              ) : (
                <td key={side} colSpan={2} className="quiet">
                  not known
                </td>
              )
            })}
          </tr>
        ))}
        {whole('Left', (side) => falls[side].at(-1)?.to ?? atRest[side])}
      </tbody>
    </table>
  )
}

/** Every term that either side has, in their order. Pure. */
function terms(falls: Props['falls']): GrowthTerm[] {
  const all = [...falls.intake, ...falls.exhaust].map(({ term }) => term)
  return [...new Map(all.map((term) => [term.id, term])).values()]
}

function Cells({ bar, says }: { bar: React.ReactNode; says: string }) {
  return (
    <>
      <td>{bar}</td>
      <td className="waterfall-says">{says}</td>
    </>
  )
}

/** What stands, or what a term takes or gives back. */
function Bar({ from, to, most }: { from: number; to: number; most: number }) {
  const x = (mm: number) => (WIDTH * Math.max(mm, 0)) / Math.max(most, 1e-9)
  const kind = from === 0 ? 'whole' : to < from ? 'taken' : 'given'
  const [low, high] = [Math.min(x(from), x(to)), Math.max(x(from), x(to))]
  return (
    <svg width={WIDTH} height={ROW} aria-hidden>
      <rect
        className={`fall-${kind}`}
        x={low}
        width={Math.max(high - low, 1)}
        y={(ROW - BAR) / 2}
        height={BAR}
      />
    </svg>
  )
}
