import type { DynamicsSide } from '../../api/client'
import { percent, plain, readIn, readLength } from '../../model/figures'
import { useSessionPart } from '../../model/useSession'

interface Props {
  readonly sides: Readonly<Record<'intake' | 'exhaust', DynamicsSide>>
  readonly at: number
}

const SIDES = ['intake', 'exhaust'] as const

/** What both valves do at the speed looked at. */
export function AtSpeed({ sides, at }: Props) {
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const system = useSessionPart((state) => state.system)
  if (!scales) return null
  const length = system === 'inch' ? scales.length_inch : scales.length_metric
  const force = system === 'inch' ? scales.force_inch : scales.force_metric
  const travel = (mm: number | undefined) => readLength(mm ?? 0, length)
  const load = (n: number | undefined) => readIn(n ?? 0, force)
  const rows: [string, (side: DynamicsSide) => string][] = [
    ['Full lift', (side) => travel(side.maximum_lift_mm[at])],
    ['Least load on the lobe', (side) => load(side.minimum_contact_n[at])],
    ['Largest gap', (side) => travel(side.loft_mm[at])],
    [
      'Bounce',
      (side) =>
        `${travel(side.bounce_mm[at])}${(side.bounces[at] ?? 0) > 0 ? `, ${String(side.bounces[at])} times` : ''}`,
    ],
    ['Stays open by', (side) => travel(side.hang_open_mm[at])],
    ['Lands at', (side) => landing(side.seating_velocity_m_per_s[at] ?? 0, system)],
    ['Most on the lobe', (side) => load(side.peak_contact_n[at])],
    ['Most in the pushrod', (side) => load(side.peak_pushrod_n[at])],
    ['Most on the pivot', (side) => load(side.peak_pivot_n[at])],
    ['Spring swings, closed', (side) => load(side.spring_swing_n[at])],
    ['Coils strike with', (side) => load(side.coil_clash_n[at])],
    ['Wire stress, of its strength', (side) => share(side.spring_stress_share?.[at])],
    ['Stress on the lobe', (side) => stress(side.lobe_stress_mpa?.[at], system)],
    ['Pushrod’s buckling load over it', (side) => times(side.pushrod_reserve?.[at])],
    ['Left to the piston', (side) => gap(side.piston_gap_mm?.[at], travel)],
    ['Plunger rises', (side) => travel(side.plunger_mm[at])],
    [
      'Cycles',
      (side) =>
        `${String(side.cycles[at] ?? 0)}${side.converged[at] === false ? ', not the same twice: the worse of two' : ''}`,
    ],
  ]
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">At {plain(sides.intake.speed_rpm[at] ?? 0)} rpm</th>
          {SIDES.map((side) => (
            <th key={side} scope="col">
              {side}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            {SIDES.map((side) => (
              <td key={side}>{of(sides[side])}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

const unknown = 'unknown'

function share(of: number | undefined): string {
  return of === undefined ? unknown : percent(of, 0)
}

function stress(mpa: number | undefined, system: 'inch' | 'metric'): string {
  if (mpa === undefined) return unknown
  return system === 'inch' ? `${plain(mpa / 6.894757)} ksi` : `${plain(mpa)} MPa`
}

function times(of: number | undefined): string {
  return of === undefined ? unknown : `${plain(of, 1)} times`
}

function gap(mm: number | undefined, read: (mm: number) => string): string {
  return mm === undefined ? unknown : read(mm)
}

/** A speed of landing in the units on screen. Pure. */
export function landing(metres: number, system: 'inch' | 'metric'): string {
  return system === 'inch' ? `${(metres / 0.3048).toFixed(1)} ft/s` : `${metres.toFixed(2)} m/s`
}
