import { Button } from 'antd'
import type { SpringReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import type { SideName } from '../motion/useTrain'
import { SIDES } from '../motion/useTrain'
import { printOnly } from '../sheet/printOnly'

type Sheet = NonNullable<SpringReport['heights']>
type Plan = Sheet['to_wanted']

/** What goes under every spring: to the height that is wanted, and with the fewest shims. */
export function Heights({ spring }: { spring: Readonly<Record<SideName, SpringReport>> }) {
  const name = useSessionPart((state) => state.answer?.name) ?? ''
  const sheets = SIDES.flatMap((side) => {
    const sheet = spring[side].heights
    return sheet ? [{ side, sheet }] : []
  })
  if (sheets.length === 0) return null
  return (
    <section className="height-sheet" aria-label="Installed heights">
      <div className="lobe-row">
        <h2>Installed heights, {name}</h2>
        <Button size="small" className="no-print" onClick={() => printOnly('height-sheet')}>
          Print this sheet
        </Button>
      </div>
      {sheets.map(({ side, sheet }) => (
        <SideSheet key={side} side={side} sheet={sheet} />
      ))}
      <p className="quiet">
        A spring under load stores enough to injure: a proper compressor and eye protection. Measure
        again when the shims are in.
      </p>
    </section>
  )
}

function SideSheet({ side, sheet }: { side: string; sheet: Sheet }) {
  const system = useSessionPart((state) => state.system)
  const { to_wanted: wanted, fewest } = sheet
  const fewer = fewest && (fewest.shims < wanted.shims || !wanted.is_even) ? fewest : undefined
  return (
    <>
      <p>
        <b className={wanted.is_even ? 'ok' : 'tight'}>{side}:</b> {wanted.says[system]}
        {fewer ? ` With the fewest: ${fewer.says[system]}` : null}
        {sheet.to_seal ? ` Retainer to seal at full lift ${sheet.to_seal[system]}.` : null}
      </p>
      <PlanTable side={side} plan={wanted} fewest={fewer} />
    </>
  )
}

function PlanTable({ side, plan, fewest }: { side: string; plan: Plan; fewest: Plan | undefined }) {
  const system = useSessionPart((state) => state.system)
  const pile = (of: Plan, place: number) => {
    const valve = of.valves[place]
    if (!valve) return ''
    const shims = valve.shims.map((shim) => shim[system]).join(' + ')
    const lock = valve.lock ? `locks ${valve.lock[system]}` : ''
    const all = [lock, shims].filter((part) => part !== '').join(', ')
    return all === '' ? (valve.is_short ? 'too short' : 'none') : all
  }
  return (
    <table className="figures">
      <thead>
        <tr>
          <th scope="col">{side}, valve</th>
          <th scope="col">Measured</th>
          <th scope="col">Shims</th>
          <th scope="col">Height</th>
          <th scope="col">Closed</th>
          <th scope="col">Open</th>
          <th scope="col">To bind</th>
          <th scope="col">To the seal</th>
          {fewest ? <th scope="col">With the fewest</th> : null}
        </tr>
      </thead>
      <tbody>
        {plan.valves.map((valve, place) => (
          <tr key={valve.valve}>
            <th scope="row">{valve.valve}</th>
            <td>{valve.measured[system]}</td>
            <td className={valve.is_off ? 'fails' : ''}>{pile(plan, place)}</td>
            <td>{valve.height[system]}</td>
            <td>{valve.seat_load[system]}</td>
            <td>{valve.open_load[system]}</td>
            <td>{valve.to_bind?.[system] ?? 'unknown'}</td>
            <td>{valve.to_seal?.[system] ?? 'unknown'}</td>
            {fewest ? <td>{pile(fewest, place)}</td> : null}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
