import { useState } from 'react'
import type { SearchPoint, SearchReport, UnitSystem } from '../../api/client'
import { KeepButton } from '../candidates/KeepButton'
import { Differ } from '../choose/Differ'
import { percent } from '../choose/sweep'
import { useScales } from '../torque/useScales'
import { Filters } from './Filters'
import { Finalists } from './Finalists'
import type { Filter } from './figures'
import { EVERYTHING, passes, pointFigures } from './figures'
import { TradeOff } from './TradeOff'

/** What a search came to: the cloud, what limits cost, finalists. */
export function Found({ report, system }: { report: SearchReport; system: UnitSystem }) {
  const [filter, setFilter] = useState<Filter>(EVERYTHING)
  const scales = useScales()
  const figures = scales ? pointFigures(scales) : []
  const [chosen, setChosen] = useState<SearchPoint>()
  const inFull = [...report.beside, ...report.finalists].map(({ point }) => point)
  const points = [...report.front, ...inFull].filter((point) => passes(point, filter, figures))
  return (
    <>
      <p className="answer">{says(report, system)}</p>
      <div className="search-found">
        <div>
          <TradeOff
            points={points}
            stands={report.stands.point}
            chosen={chosen}
            onChoose={setChosen}
          />
          <Filters
            report={report}
            figures={figures}
            filter={filter}
            onFilter={setFilter}
            count={points.length}
          />
          <Looked point={chosen} report={report} system={system} />
        </div>
        <Prices report={report} system={system} />
      </div>
      <Finalists report={report} system={system} />
      <Differ
        summary="Where the best found differs, and what that does"
        words={report.differ.flatMap(({ words }) => words)}
        system={system}
      />
      <p className="quiet">
        {report.evaluations.screened} cams screened, {report.evaluations.drafted} drafted,{' '}
        {report.evaluations.full} computed in full with their trains turned; ordered by {report.aim}
        . Large dots are computed in full, small ones foreseen within{' '}
        {percent(report.off_share, 2).replace('+', '')} of a drafted curve. A planning aid: a cam is
        ordered on what was measured.
      </p>
    </>
  )
}

/** The best, or what cannot be met, in a sentence. Pure. */
function says(report: SearchReport, system: UnitSystem): string {
  const { impossible } = report
  if (impossible)
    return `No choice meets every limit: ${impossible.title.toLowerCase()} is short by ${impossible.short_by[system]} at best.`
  const best = report.finalists[0]
  if (!best || best.broken.length > 0 || best.gain <= 0)
    return 'Nothing better was found within every limit: this one stands.'
  const numbers = best.point.decisions
    .slice(0, 4)
    .map(({ title, value }) => `${title.toLowerCase()} ${value[system].replace(' deg', '')}`)
  const kit = report.kits[best.point.kit]?.title
  return `${best.title}: ${numbers.join(', ')}; ${kit ?? ''}: ${percent(best.gain, 2)} within every limit.`
}

interface LookedProps {
  readonly point: SearchPoint | undefined
  readonly report: SearchReport
  readonly system: UnitSystem
}

/** The candidate that is pointed at. */
function Looked({ point, report, system }: LookedProps) {
  if (!point) return <p className="quiet">Point at a candidate to see what it is.</p>
  const finalist = [...report.beside, ...report.finalists].find((each) => each.point === point)
  const name = finalist?.title ?? 'Found on the front'
  return (
    <p className="search-looked">
      <b>{name}</b>{' '}
      {point.decisions
        .map(({ title, value }) => `${title.toLowerCase()} ${value[system]}`)
        .join(', ')}
      ; {report.kits[point.kit]?.title}{' '}
      <KeepButton name={name} candidate={finalist?.candidate ?? point.candidate} />
    </p>
  )
}

/** Share of engines that fail by what was chosen, above which it is said what to do. */
const OFTEN = 0.25

function Prices({ report, system }: { report: SearchReport; system: UnitSystem }) {
  return (
    <div>
      <h4>What a little more would buy</h4>
      {report.prices.length === 0 ? (
        <p className="quiet">
          No limit alone holds the best back, nor do two together: it is where it is by itself.
        </p>
      ) : (
        <table className="figures">
          <tbody>
            {report.prices.map((price) => (
              <tr key={price.limits.map(({ title }) => title).join()}>
                <th scope="row">
                  {price.limits.map(({ title, by }) => `${title}, ${by[system]}`).join('; with ')}
                </th>
                <td>{price.buys[system]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="quiet">
        Everything chosen anew with the limit moved, on the same ground; two where each alone buys
        less.
      </p>
      <Kept report={report} system={system} />
    </div>
  )
}

/** What was kept of limits for what parts are off by; and what would be where nothing was and most of what was found fails. */
function Kept({ report, system }: { report: SearchReport; system: UnitSystem }) {
  const best = report.finalists[0]
  if (report.kept.length === 0) {
    const fails = best?.fails_by_choice_share ?? 0
    return fails > OFTEN ? (
      <p className="quiet">
        The best lies on its limits: built, {(100 * fails).toFixed(0)} in 100 engines fail one that
        cam or parts move. Search with fewer failures allowed to keep something in hand.
      </p>
    ) : null
  }
  return (
    <details>
      <summary>Kept of {report.kept.length} limits for what parts are off by</summary>
      <p className="quiet">
        {report.kept.map(({ title, by }) => `${title.toLowerCase()} ${by[system]}`).join(', ')}
      </p>
    </details>
  )
}
