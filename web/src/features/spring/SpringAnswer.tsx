import { percent, plain, readIn, readLength } from '../../model/figures'
import type { SpringReport } from '../../api/client'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import type { Curve } from '../charts/series'
import { Needs } from '../fields/Needs'
import { Heights } from './Heights'
import { Surge } from './Surge'
import './spring.css'

const SIDES = ['intake', 'exhaust'] as const

/** Whether the springs can stay, their load over height, and what they are at this cam's lift. */
export function SpringAnswer() {
  const candidate = useCandidate()
  const system = useSessionPart((state) => state.system)
  const spring = candidate?.spring
  if (!candidate || !spring || spring.state === 'not_asked') return null
  if (spring.state !== 'done') {
    return 'reason' in spring ? (
      <Needs what="The spring is judged" reason={spring.reason} needs={spring.needs} />
    ) : null
  }
  const stay = candidate.springs_stay
  return (
    <>
      {stay ? <p className={`answer ${stay.verdict}`}>{stay.says[system]}</p> : null}
      <div className="answer-pictures">
        <LoadOverHeight spring={spring} />
        <Facts spring={spring} />
      </div>
      <Surge spring={spring} />
      <Heights spring={spring} />
    </>
  )
}

interface Both {
  readonly intake: SpringReport
  readonly exhaust: SpringReport
}

/** Load over height from installed to bind; where full lift takes each is marked. */
function LoadOverHeight({ spring }: { spring: Both }) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  if (!scales) return null
  const inch = system === 'inch'
  const [length, force] = inch
    ? [scales.length_inch, scales.force_inch]
    : [scales.length_metric, scales.force_metric]
  const height = (mm: number) => (mm * 1e-3) / length.factor
  const curves = SIDES.map((side): Curve => ({
    name: side,
    ink: side,
    points: spring[side].height_mm
      .map((mm, i): [number, number] => [height(mm), (spring[side].load_n[i] ?? 0) / force.factor])
      .reverse(),
  }))
  const stressed = SIDES.flatMap((side): Curve[] => {
    const shares = spring[side].stress_share
    return shares
      ? [
          {
            name: `${side} stress`,
            ink: side,
            beside: true,
            right: true,
            points: spring[side].height_mm
              .map((mm, i): [number, number] => [height(mm), 100 * (shares[i] ?? 0)])
              .reverse(),
          },
        ]
      : []
  })
  const open = SIDES.map((side) => ({
    x: height(spring[side].open_height_mm),
    text: `${side} open`,
  }))
  const same = Math.abs((open[0]?.x ?? 0) - (open[1]?.x ?? 0)) < 0.004 * (open[0]?.x ?? 1)
  return (
    <Chart
      label="Load over height, down to bind"
      name="spring-load"
      curves={[...curves, ...stressed]}
      x={{ unit: `height, ${length.unit}` }}
      y={{ unit: force.unit, from: 0 }}
      {...(stressed.length > 0 ? { right: { unit: '% of strength', from: 0, to: 100 } } : {})}
      marks={same ? [{ x: open[0]?.x ?? 0, text: 'full lift' }] : open}
      height={180}
    />
  )
}

/** Rate, loads, travel to bind, surge and stress of each side. */
function Facts({ spring }: { spring: Both }) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  if (!scales) return null
  const inch = system === 'inch'
  const force = inch ? scales.force_inch : scales.force_metric
  const length = inch ? scales.length_inch : scales.length_metric
  const load = (n: number) => readIn(n, force)
  const travel = (mm: number) => readLength(mm, length)
  const rows: [string, (side: SpringReport) => string | undefined][] = [
    ['Closed', (side) => load(side.seat_load_n)],
    ['Open, at this cam’s lift', (side) => load(side.open_load_n)],
    ['Rate', (side) => side.rate[system]],
    [
      'To coil bind',
      (side) =>
        typeof side.to_coil_bind_mm === 'number' ? travel(side.to_coil_bind_mm) : undefined,
    ],
    [
      'Left against gas',
      (side) => (typeof side.seat_reserve_n === 'number' ? load(side.seat_reserve_n) : undefined),
    ],
    [
      'First surge',
      (side) =>
        typeof side.surge_frequency_hz === 'number'
          ? `${plain(side.surge_frequency_hz)} Hz`
          : undefined,
    ],
    ['Wire stress open', (side) => side.stress_open?.[system]],
    [
      'Of its strength',
      (side) => {
        const share = side.coils.reduce((most, coil) => Math.max(most, coil.stress_share), 0)
        return share > 0 ? percent(share, 0) : undefined
      },
    ],
    [
      'Fatigue reserve',
      (side) =>
        typeof side.fatigue_reserve === 'number' ? plain(side.fatigue_reserve, 2) : undefined,
    ],
    [
      'Each coil, closed and open',
      (side) =>
        side.coils.length > 1
          ? side.coils
              .map((coil) => `${coil.seat_load[system]}, ${coil.open_load[system]}`)
              .join('; ')
          : undefined,
    ],
    [
      'Each coil to bind',
      (side) =>
        side.coils.length > 1
          ? side.coils.map((coil) => coil.to_bind[system]).join('; ')
          : undefined,
    ],
  ]
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">Spring</th>
          {SIDES.map((side) => (
            <th key={side} scope="col">
              {side}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows
          .filter(([, of]) => SIDES.some((side) => of(spring[side]) !== undefined))
          .map(([name, of]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {SIDES.map((side) => (
                <td key={side}>{of(spring[side]) ?? 'unknown'}</td>
              ))}
            </tr>
          ))}
      </tbody>
    </table>
  )
}
