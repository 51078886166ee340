import { useState } from 'react'
import type { Edit, MarginMoved } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { percent } from '../choose/sweep'
import { useWeighed } from './useWeighed'

/** Margins shown before the rest is asked for. */
const FIRST = 4

/** What taking it would move: torque, and every margin, the worst first. */
export function Moves({ edits }: { readonly edits: Edit[] }) {
  const { weighed, isDrafting, isError } = useWeighed(edits)
  const [all, setAll] = useState(false)
  if (isError) return <p className="quiet">What it would move cannot be said.</p>
  if (!weighed) return <p className="quiet">Weighing what it would move…</p>
  const { margins, still, torque } = weighed
  const shown = all ? margins : margins.slice(0, FIRST)
  return (
    <div className="moves">
      <p className="quiet">
        Taken, {margins.length === 0 ? 'no margin moves' : `${String(margins.length)} margins move`}
        , {still} stay
        {torque
          ? `; average torque ${percent(torque.average_torque, 2)}, peak power ${percent(torque.peak_power, 2)}`
          : isDrafting
            ? '; torque is drafted'
            : ''}
        .
      </p>
      {shown.length > 0 ? (
        <table className="figures">
          <tbody>
            {shown.map((one) => (
              <Row key={`${one.id} ${one.side ?? ''}`} one={one} />
            ))}
          </tbody>
        </table>
      ) : null}
      {margins.length > shown.length ? (
        <button type="button" className="link" onClick={() => setAll(true)}>
          {margins.length - shown.length} more
        </button>
      ) : null}
    </div>
  )
}

function Row({ one }: { one: MarginMoved }) {
  const system = useSessionPart((state) => state.system)
  return (
    <tr>
      <th scope="row">{one.title}</th>
      <td>
        {one.from?.[system] ?? 'unknown'} → <b>{one.to?.[system] ?? 'unknown'}</b>
      </td>
      <td>
        <span className={`word ${one.after}`}>
          {one.before === one.after ? one.after : `${one.before} → ${one.after}`}
        </span>
      </td>
    </tr>
  )
}
