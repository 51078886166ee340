import { Segmented } from 'antd'
import { useState } from 'react'
import type { SensitivityLine } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import type { Measure } from './movers'
import { ranked } from './movers'
import { signedPercent } from '../../model/figures'
import { useJob } from '../../model/useJob'

const MEASURES: { value: Measure; label: string }[] = [
  { value: 'average_torque', label: 'average torque' },
  { value: 'peak_power', label: 'peak power' },
]

/** What changes torque most: each decision changed a little by itself, ranked. Some seconds of work, only when asked for. */
export function Movers() {
  const [open, setOpen] = useState(false)
  return (
    <details className="folded" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>What changes torque most</summary>
      {open ? <Ranking /> : null}
    </details>
  )
}

function Ranking() {
  const [measure, setMeasure] = useState<Measure>('average_torque')
  const line = useSensitivity()
  if (line.error)
    return (
      <p className="fault" role="alert">
        {line.error.message}
      </p>
    )
  if (!line.data)
    return (
      <p className="quiet" role="status">
        Changing each decision a little…
      </p>
    )
  if (line.data.state === 'waiting')
    return (
      <p className="quiet" role="status">
        Waiting for other work…
      </p>
    )
  if (line.data.state === 'stopped') return <p className="quiet">Stopped before its end.</p>
  if (line.data.state === 'failed') return <p className="quiet">{line.data.reason}</p>
  const movers = ranked(line.data.effects, measure)
  return (
    <>
      <div className="movers-head">
        <Segmented
          size="small"
          aria-label="What is ranked"
          options={MEASURES}
          value={measure}
          onChange={setMeasure}
        />
        <span className="quiet" role="status">
          {line.data.state === 'running'
            ? `${String(line.data.effects.length)} of ${String(line.data.of)}`
            : 'each changed by itself, drafts against a draft'}
        </span>
      </div>
      <ul className="movers">
        {movers.map(({ effect, by, from, length }) => (
          <li key={effect.id}>
            <span>
              {effect.label} <span className="quiet">{effect.change}</span>
            </span>
            <svg viewBox="-100 0 200 10" preserveAspectRatio="none" aria-hidden="true">
              <rect
                className={from < 0 ? 'loss' : 'gain'}
                x={100 * from}
                y="1"
                width={100 * length}
                height="8"
              />
              <line x1="0" x2="0" y1="0" y2="10" />
            </svg>
            <span>
              {by === undefined ? (
                <span className="quiet" title={effect.trouble ?? ''}>
                  cannot be made
                </span>
              ) : (
                signedPercent(by)
              )}
              {measure === 'peak_power' && typeof effect.peak_power_rpm === 'number' ? (
                <span className="quiet">
                  {' '}
                  {effect.peak_power_rpm >= 0 ? '+' : '−'}
                  {Math.abs(Math.round(effect.peak_power_rpm))} rpm
                </span>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}

function useSensitivity() {
  const document = useSessionPart((state) => state.history.present)
  const candidate = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  return useJob<SensitivityLine>(
    '/api/sensitivity',
    ['sensitivity', document, candidate],
    candidate === undefined ? undefined : { document, candidate },
  )
}
