import type { LimitReport } from '../../api/client'
import { useCandidate, useSessionPart } from '../../model/useSession'
import { Needs } from '../fields/Needs'

/** Displacement, compression and quench as they follow the fields. */
export function EngineAnswer() {
  const candidate = useCandidate()
  const readings = useSessionPart((state) => state.answer?.readings)
  const system = useSessionPart((state) => state.system)
  const engine = candidate?.engine
  if (engine?.state === 'failed') {
    return (
      <Needs
        what="Displacement and compression are known"
        reason={engine.reason}
        needs={engine.needs}
      />
    )
  }
  if (engine?.state !== 'done') return null
  const read = (id: string) => readings?.find((reading) => reading.id === id)?.shown[system]
  const limit = (id: string): LimitReport | undefined =>
    candidate?.limits.find((each) => each.id === id)
  const quench = limit('piston_to_head')
  const trapped = limit('trapped_compression')
  const facts: [string, string | undefined, string | undefined][] = [
    ['Displacement', read('displacement'), undefined],
    [
      'Compression',
      read('compression') ? `${read('compression') ?? ''}:1` : 'unknown: give the chamber',
      undefined,
    ],
    ['Dynamic compression', trapped?.shown?.have[system], trapped?.verdict],
    ['Piston to head', read('quench'), quench?.verdict],
  ]
  return (
    <dl className="facts answer-facts">
      {facts.map(([name, text, verdict]) =>
        text === undefined ? null : (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {text}
              {verdict !== undefined && verdict !== 'ok' ? (
                <span className={`word ${verdict}`}> {verdict}</span>
              ) : null}
            </dd>
          </div>
        ),
      )}
    </dl>
  )
}
