import { Fragment, useState } from 'react'
import type { FinalistReport, MeasureNext, SearchReport, UnitSystem } from '../../api/client'
import { KeepButton } from '../candidates/KeepButton'
import { percent } from '../choose/sweep'

interface Props {
  readonly report: SearchReport
  readonly system: UnitSystem
}

/** Candidates in full, the best first: what each comes to, what binds it, and what it takes. */
export function Finalists({ report, system }: Props) {
  const [open, setOpen] = useState<string>()
  const rows = [report.stands, ...report.beside, ...report.finalists]
  return (
    <table className="figures proposals">
      <thead>
        <tr>
          <th scope="col">Finalists, in full</th>
          <th scope="col">Gain</th>
          {report.goals.map(({ goal, title }) => (
            <th key={goal} scope="col">
              {title}
            </th>
          ))}
          <th scope="col">Limits</th>
          <th scope="col">
            <span className="unseen">Keep</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((finalist, place) => (
          <Fragment key={finalist.title}>
            <tr>
              <th scope="row">
                <button
                  type="button"
                  className="link"
                  aria-expanded={open === finalist.title}
                  onClick={() => {
                    setOpen(open === finalist.title ? undefined : finalist.title)
                  }}
                >
                  {finalist.title} <span className="quiet">{numbers(finalist, system)}</span>
                </button>
              </th>
              <td>{place === 0 ? '' : percent(finalist.gain, 2)}</td>
              {finalist.goals.map((goal, i) => (
                <td key={report.goals[i]?.goal}>{goal[system]}</td>
              ))}
              <td>
                <Limits finalist={finalist} system={system} />
              </td>
              <td>
                <KeepButton name={finalist.title} candidate={finalist.candidate} />
              </td>
            </tr>
            {open === finalist.title ? (
              <tr>
                <td colSpan={report.goals.length + 4}>
                  <More finalist={finalist} report={report} system={system} />
                </td>
              </tr>
            ) : null}
          </Fragment>
        ))}
      </tbody>
    </table>
  )
}

/** The first decisions as people say them. Pure. */
function numbers(finalist: FinalistReport, system: UnitSystem): string {
  return finalist.point.decisions
    .slice(0, 4)
    .map(({ value }) => value[system].replace(/ deg.*$/, ''))
    .join(' / ')
}

function Limits({ finalist, system }: { finalist: FinalistReport; system: UnitSystem }) {
  if (finalist.broken.length > 0)
    return (
      <ul className="plain">
        {finalist.broken.map((limit) => (
          <li key={limit.title} className="fails">
            {limit.title} {limit.left[system]}
          </li>
        ))}
      </ul>
    )
  return (
    <span className="ok">
      all hold
      {finalist.binds.length > 0 ? `, ${String(finalist.binds.length)} with little left` : ''}
    </span>
  )
}

interface MoreProps extends Props {
  readonly finalist: FinalistReport
}

/** Why, what binds, what it takes, and how sure all that is. */
function More({ finalist, report, system }: MoreProps) {
  // Of a candidate beside it is not said what it would take: it was not put together here.
  const kit = report.beside.includes(finalist) ? undefined : report.kits[finalist.point.kit]
  const cost = report.limits.findIndex(({ id }) => id === 'cost')
  const left = finalist.point.left[cost]
  return (
    <dl className="because">
      <Line title="Decisions">
        {finalist.point.decisions
          .map(({ title, value }) => `${title.toLowerCase()} ${value[system]}`)
          .join(', ')}
      </Line>
      <Line title="Sure">{sureness(finalist)}</Line>
      {typeof finalist.fails_share === 'number' ? (
        <Line title="Built with the tolerances">{built(finalist)}</Line>
      ) : null}
      {finalist.binds.length > 0 ? (
        <Line title="Little left">
          {finalist.binds.map(({ title, left }) => `${title} ${left[system]}`).join('; ')}
        </Line>
      ) : null}
      {kit ? (
        <Line title="Hardware">
          {kit.title}
          {kit.parts.map(
            (part) =>
              `; ${part.name}: ${part.price ?? 'no price given'}, ${part.lead_time ?? 'lead time not known'}`,
          )}
          {kit.drags.map((drag) => `; ${drag.what.toLowerCase()} (${drag.why})`)}. Parts{' '}
          {kit.money[system]} in all, as far as prices are given
          {typeof left === 'number' ? `, of the budget ${left.toFixed(0)} USD remain` : ''};
          machining is not in it.
        </Line>
      ) : null}
      {finalist.interval ? (
        <Line title="Springs looked at every">
          {finalist.interval}. Common practice, an order of magnitude.
        </Line>
      ) : null}
      {finalist.measure_first.length > 0 ? (
        <Line title="Measure before ordering">
          {finalist.measure_first.map(toMeasure).join(', ')}.
        </Line>
      ) : null}
      {finalist.because.map((each) => (
        <Line key={each.decision} title={`${each.decision} ${each.value[system]}`}>
          {each.why[system]}
        </Line>
      ))}
    </dl>
  )
}

function Line({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <div>
      <dt>{title}</dt>
      <dd className="quiet">{children}</dd>
    </div>
  )
}

/** What to measure, and how often that would change the choice. Pure. */
function toMeasure({ label, value, changes_share }: MeasureNext): string {
  const often = typeof changes_share === 'number' ? `, ${hundredths(changes_share)} engines` : ''
  const now = value === '' ? 'unknown' : value
  return `${label.toLowerCase()} (${now}${often === '' ? '' : `${often} would ask for another choice`})`
}

/** How often it fails and how sure it is to be better all the same, in words. Pure. */
function built({ fails_share, fails_by_choice_share, fails_most, sure_built }: FinalistReport) {
  const parts = [
    typeof fails_share === 'number'
      ? `${hundredths(fails_share)} engines fail a limit${fails_most ? `, most of them ${fails_most.toLowerCase()}` : ''}`
      : undefined,
    typeof fails_by_choice_share === 'number'
      ? `by limits that cam or parts move ${hundredths(fails_by_choice_share)}`
      : undefined,
    typeof sure_built === 'number'
      ? `better than what stands and clear: ${hundredths(sure_built)}`
      : undefined,
  ]
  return parts.filter(Boolean).join('; ')
}

/** A share of a hundred. Pure. */
function hundredths(share: number): string {
  return share > 0 && share < 0.005 ? 'fewer than 1 in 100' : `${(100 * share).toFixed(0)} in 100`
}

/** How sure a gain is, in words. Pure. */
function sureness({ sure, sure_best_is_better }: FinalistReport): string {
  const share = (value: number) => `${Math.min(99, Math.max(1, 100 * value)).toFixed(0)} in 100`
  const parts = [
    typeof sure === 'number' ? `better than what stands: ${share(sure)}` : undefined,
    typeof sure_best_is_better === 'number'
      ? `the best is better than this: ${share(sure_best_is_better)}`
      : undefined,
  ]
  return parts.filter(Boolean).join('; ')
}
