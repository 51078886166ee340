import { useState } from 'react'
import type { LimitReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
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
      <Said limit={limit} />
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

/** What was found of this valve, with its remarks: an estimate that the computed gas replaced, a note of the rule. */
function Said({ limit }: { limit: LimitReport }) {
  const system = useSessionPart((state) => state.system)
  const { shown, computed, estimate, note } = limit
  const remarks = [
    shown ? `Has ${shown.have[system]}, ${shown.margin[system]} left over` : undefined,
    computed ? 'with the gas as computed' : undefined,
    estimate ? `${estimate[system]} by estimate` : undefined,
    note?.[system],
    limit.chance ? `${limit.chance.says} under the tolerances as drawn` : undefined,
  ].filter((text) => text !== undefined && text !== '')
  return remarks.length === 0 ? null : <p>{remarks.join('; ')}.</p>
}
