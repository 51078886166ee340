import { useState } from 'react'
import type { ToleranceReport } from '../../api/client'
import { usePlace } from '../../model/place'
import { useSessionPart } from '../../model/useSession'
import { OverlapChart } from './OverlapChart'
import { Spread } from './Spread'
import { TolerancedFields } from './TolerancedFields'
import { shareOf, shownLimits } from './tolerances'
import { useTolerances } from './useTolerances'
import { Worked } from './Worked'

/** How likely each limit fails, what drives it, and what to measure first. */
export function Tolerances() {
  const { report, isOld, doing, error } = useTolerances()
  return (
    <Worked label="How likely limits fail" isOld={isOld} doing={doing} error={error}>
      {report ? <Report report={report} /> : null}
    </Worked>
  )
}

function Report({ report }: { report: ToleranceReport }) {
  const [isAll, setAll] = useState(false)
  const limits = shownLimits(report.limits, isAll)
  const rest = report.limits.length - limits.length
  return (
    <>
      <p className="answer">{report.says}</p>
      <MeasureFirst report={report} />
      {report.overlap ? <OverlapChart overlap={report.overlap} /> : null}
      <ul className="spreads" aria-label="Limits under the tolerances">
        {limits.map((limit) => (
          <Spread key={`${limit.id} ${limit.side ?? ''}`} limit={limit} />
        ))}
      </ul>
      {rest > 0 || isAll ? (
        <button
          type="button"
          className="link quiet"
          aria-expanded={isAll}
          onClick={() => setAll(!isAll)}
        >
          {isAll ? 'only those that can fail' : `and ${String(rest)} that hold`}
        </button>
      ) : null}
      <TolerancedFields fields={report.fields} />
      <p className="quiet">{checked(report)}</p>
    </>
  )
}

/** What stands behind the figures, in sentences. Pure. */
function checked(report: ToleranceReport): string {
  const drawn = `${report.samples.toLocaleString('en')} engines of ${String(report.cylinders)} cylinders drawn by lot on responses of first and second order.`
  const held =
    report.held.length > 0 ? ` Not in it, unmoved or not run yet: ${report.held.join(', ')}.` : ''
  const joins = report.joins ? ` ${report.joins}` : ''
  if (report.checked_runs === 0) return `${drawn}${held}${joins}`
  const most = report.checked_disagree
  const gas =
    report.checked_gas_runs > 0
      ? ` (${String(report.checked_gas_runs)} where gas and trains are run)`
      : ''
  return `${drawn} Held against whole computations of at least ${String(report.checked_runs)} cylinders${gas}: in at most ${shareOf(most)} of them a verdict differed.${held}${joins}`
}

function MeasureFirst({ report }: { report: ToleranceReport }) {
  const { goToField } = usePlace()
  const system = useSessionPart((state) => state.system)
  if (report.measure_first.length === 0) return null
  return (
    <div className="measure-first">
      <h3>Measure first</h3>
      <ol>
        {report.measure_first.slice(0, 5).map((first) => (
          <li key={first.label}>
            <button type="button" className="link" onClick={() => goToField(first.field)}>
              {first.label}
            </button>{' '}
            <span className="quiet">
              from {first.now[system]} to {first.then[system]}:
            </span>{' '}
            {shareOf(report.any_fails_share)} → <b>{shareOf(first.any_fails_share_if_known)}</b>{' '}
            <span className="quiet">of engines fail a limit; {first.settles.join(', ')}</span>
          </li>
        ))}
      </ol>
    </div>
  )
}
