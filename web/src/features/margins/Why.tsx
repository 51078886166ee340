import { useState } from 'react'
import type { LimitReport } from '../../api/client'
import { OwnLimit } from './OwnLimit'
import { Remedies } from './Remedies'

/** Inputs shown at once: what one goes to first stands first. */
const FIRST = 8

/** Why a limit says what it says: formula, inputs with their origin, school, source, and what buys margin. */
export function Why({ limit, onGoTo }: { limit: LimitReport; onGoTo: (field: string) => void }) {
  const [all, setAll] = useState(false)
  const inputs = all ? limit.inputs : limit.inputs.slice(0, FIRST)
  const rest = limit.inputs.length - FIRST
  return (
    <div className="why">
      <p>{limit.formula}.</p>
      <p className="quiet">
        {limit.school}. Figure: {limit.source}.
      </p>
      <table>
        <caption>What went into it</caption>
        <tbody>
          {inputs.map((input) => (
            <tr key={input.field}>
              <td>
                <button type="button" className="link" onClick={() => onGoTo(input.field)}>
                  {input.label}
                </button>
              </td>
              <td className="figure">{input.value}</td>
              <td className={`origin ${input.origin}`}>{input.origin}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rest > 0 ? (
        <p className="rest">
          <button
            type="button"
            className="link quiet"
            aria-expanded={all}
            onClick={() => setAll(!all)}
          >
            {all ? 'the first of them only' : `and ${rest} more`}
          </button>
        </p>
      ) : null}
      <Remedies limit={limit} />
      <OwnLimit limit={limit} />
    </div>
  )
}
