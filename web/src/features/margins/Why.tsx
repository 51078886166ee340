import type { LimitReport } from '../../api/client'
import { OwnLimit } from './OwnLimit'
import { Remedies } from './Remedies'

/** Why a limit says what it says: formula, inputs with their origin, school, source, and what buys margin. */
export function Why({ limit, onGoTo }: { limit: LimitReport; onGoTo: (field: string) => void }) {
  return (
    <div className="why">
      <p>{limit.formula}.</p>
      <p className="quiet">{limit.school}. Figure: {limit.source}.</p>
      <table>
        <caption>What went into it</caption>
        <tbody>
          {limit.inputs.map((input) => (
            <tr key={input.field}>
              <td><button type="button" className="link" onClick={() => { onGoTo(input.field) }}>{spoken(input.field)}</button></td>
              <td className="figure">{short(input.value)}</td>
              <td className={`origin ${input.origin}`}>{input.origin}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Remedies limit={limit} />
      <OwnLimit limit={limit} />
    </div>
  )
}

function spoken(path: string): string {
  const parts = path.replace(/^candidates\[\d+\]\./, '').replace(/^(train|cam|engine|target)\./, '').split('.')
  return parts.join(' ').replaceAll('_', ' ')
}

function short(value: string): string {
  return value.length > 24 ? 'a table' : value
}
