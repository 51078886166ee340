import { Button } from 'antd'
import type { LimitReport } from '../../api/client'
import { useSession, useSessionPart } from '../session/useSession'

/** Why a limit says what it says: formula, inputs with their origin, school, source, and what buys margin. */
export function Why({ limit, onGoTo }: { limit: LimitReport; onGoTo: (field: string) => void }) {
  const session = useSession()
  const system = useSessionPart((state) => state.system)
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
      {limit.remedies.length > 0 ? (
        <table>
          <caption>What buys it back, each by itself</caption>
          <tbody>
            {limit.remedies.map((remedy) => (
              <tr key={`${remedy.field}${remedy.to}`}>
                <td>{remedy.label} {remedy.from} → {remedy.to}</td>
                <td className="figure">{remedy.gain_shown[system]}, {remedy.verdict}</td>
                <td>
                  <Button
                    size="small"
                    aria-label={`Try ${remedy.label} ${remedy.to}`}
                    onClick={() => { session.edit({ set: { field: remedy.field, text: remedy.to } }) }}
                  >
                    try
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
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
