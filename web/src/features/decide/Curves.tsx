import type { Column } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { inkOf } from '../charts/series'
import { curveOf } from '../torque/useCurve'
import { useDrafts } from '../torque/useDrafts'
import type { Named } from './curves'
import { differencesOf, overlaidOf, summaryOf } from './curves'

/** Torque and power of every candidate in one chart, what each has over the one in view, and that in a sentence. */
export function Curves({ columns }: { columns: readonly Column[] }) {
  const viewed = useSessionPart((state) => state.answer?.analysis.candidates[0]?.id)
  const system = useSessionPart((state) => state.system)
  const scales = useSessionPart((state) => state.answer?.analysis.scales)
  const lines = useDrafts(columns.map(({ id }) => id))
  if (!scales) return null
  const [torque, power] =
    system === 'inch'
      ? [scales.torque_inch, scales.power_inch]
      : [scales.torque_metric, scales.power_metric]
  const named = columns.flatMap(({ id, name }, place): Named[] => {
    const curve = curveOf(lines[place]?.data)
    return curve ? [{ id, name, curve, ink: inkOf(place) }] : []
  })
  const failed = columns.flatMap(({ name }, place) => {
    const line = lines[place]?.data
    if (line?.state === 'failed') return [`${name} has no curve: ${line.reason}.`]
    const error = lines[place]?.error
    return error ? [`${name} has no curve: ${error.message}`] : []
  })
  // What the others are held against is the one in view, never one that happens to come first.
  const reference = named.find(({ id }) => id === viewed)
  const pending = columns.length - named.length - failed.length
  return (
    <>
      {pending > 0 ? (
        <p className="quiet" role="status">
          Drafting {pending} of {columns.length} curves…
        </p>
      ) : null}
      {failed.map((text) => (
        <p key={text} className="quiet">
          {text}
        </p>
      ))}
      {reference && named.length > 1 ? (
        <p className="answer">{summaryOf(reference, named, torque)}</p>
      ) : null}
      {named.length > 0 ? (
        <div className="decide-curves">
          <Chart
            label="Torque and power of every candidate; drafts"
            name="candidates"
            {...overlaidOf(named, { torque, power })}
            x={{ unit: 'rpm' }}
            y={{ unit: torque.unit }}
            right={{ unit: power.unit }}
            height={230}
          />
          {reference && named.length > 1 ? (
            <Chart
              label={`Torque over ${reference.name}, with what the difference may be off by`}
              name="differences"
              {...differencesOf(reference, named, torque)}
              x={{ unit: 'rpm' }}
              y={{ unit: torque.unit }}
              height={150}
            />
          ) : null}
        </div>
      ) : null}
    </>
  )
}
