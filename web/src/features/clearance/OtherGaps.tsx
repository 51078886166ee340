import { Button } from 'antd'
import type { CandidateReport, MarkReport } from '../../api/client'
import { plain, readLength } from '../../model/figures'
import type { useLengthScale } from '../../model/useSession'
import { useCandidate, useSession, useSessionPart } from '../../model/useSession'

type AtSpeed = Extract<CandidateReport['at_speed'], { state: 'done' }>
type Scale = NonNullable<ReturnType<typeof useLengthScale>>

/** Gaps around the valves at the speed looked at, beside what they are at rest. */
export function OtherGaps({
  report,
  place,
  scale,
}: {
  report: AtSpeed
  place: number
  scale: Scale
}) {
  const limits = useCandidate()?.limits ?? []
  const system = useSessionPart((state) => state.system)
  const rest = (id: string, side?: 'intake' | 'exhaust') =>
    limits.find((limit) => limit.id === id && (limit.side ?? undefined) === side)?.shown?.have[
      system
    ] ?? 'unknown'
  const read = (mm: number | null | undefined) =>
    typeof mm === 'number' ? readLength(mm, scale) : 'unknown'
  const sides = (['intake', 'exhaust'] as const).map((side) => ({ side, own: report[side] }))
  const rows = [
    ...sides.map(({ side, own }) => ({
      name: `${side} retainer to seal`,
      rest: rest('retainer_to_seal', side),
      left: read(own.retainer_to_seal_mm?.[place]),
    })),
    ...sides.map(({ side, own }) => ({
      name: `${side} travel to coil bind`,
      rest: rest('coil_bind', side),
      left: read(own.coil_bind_mm?.[place]),
    })),
    ...sides
      .filter(({ own }) => typeof own.radial_mm === 'number')
      .map(({ side, own }) => ({
        name: `${side} valve to pocket wall`,
        rest: rest('radial', side),
        left: read(own.radial_mm),
      })),
    {
      name: 'valve to valve',
      rest: rest('valve_to_valve'),
      left: read(report.valve_to_valve_mm?.[place]),
    },
    {
      name: 'piston to head',
      rest: rest('piston_to_head'),
      left: read(report.piston_to_head_mm[place]),
    },
  ]
  return (
    <table className="figures">
      <caption>Around it, at {plain(report.speed_rpm[place] ?? 0)} rpm</caption>
      <thead>
        <tr>
          <td />
          <th scope="col">at rest</th>
          <th scope="col">left</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            <td>{row.rest}</td>
            <td>{row.left}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** What marks of running engines say of the growth, and the way to take it up. */
export function Marks({ marks, scale }: { marks: readonly MarkReport[]; scale: Scale }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
  if (marks.length === 0) return null
  return (
    <ul className="marks" aria-label="Witness marks">
      {marks.map((mark) => (
        <li key={mark.id}>
          Run to {plain(mark.rpm)} rpm: {readLength(mark.left_mm, scale)} left, computed{' '}
          {readLength(mark.computed_mm, scale)}; {mark.says[system]}.{' '}
          {mark.field && mark.to ? (
            <Button
              size="small"
              onClick={() =>
                session.edit({ set: { field: mark.field ?? '', text: mark.to ?? '' } })
              }
            >
              take it as growth for every candidate
            </Button>
          ) : null}
        </li>
      ))}
    </ul>
  )
}
