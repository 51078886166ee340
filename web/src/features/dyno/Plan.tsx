import { Button, Checkbox, Select } from 'antd'
import type { PullsReport, TestPlanReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { LivePull } from './LivePull'

interface Props {
  readonly plan: TestPlanReport
  readonly report: PullsReport
  readonly onPulls: () => void
}

/** The test as it is to be run: the next pull large, the order drawn by lot, what is held. */
export function Plan({ plan, report, onPulls }: Props) {
  const system = useSessionPart((state) => state.system)
  const next = typeof plan.next === 'number' ? plan.order[plan.next] : undefined
  const done = plan.order.filter(({ pull }) => pull).length
  return (
    <div className="test-plan">
      <div className="next-pull" role="status">
        <p className="quiet">
          {done} of {plan.order.length} pulls run
        </p>
        {next ? (
          <>
            <p className="next-says">
              {next.name}{' '}
              <span className="quiet">
                {next.control ? 'control, ' : ''}pull {next.nth}
              </span>
            </p>
            {next.changed ? <p>Fit it first: another combination was on the dyno.</p> : null}
          </>
        ) : (
          <p className="next-says">All pulls are run.</p>
        )}
        <ul className="held">
          {plan.held.map((own) => (
            <li key={own.metric}>{own[system]}</li>
          ))}
        </ul>
        <LivePull plan={plan} report={report} />
        <Button className="no-print" onClick={onPulls}>
          Take in a file
        </Button>
      </div>
      <p>{plan.says[system]}</p>
      <Who plan={plan} />
      <ol className="pull-order" aria-label="Order of the pulls">
        {plan.order.map((own, place) => (
          <li
            key={place}
            className={own.changed ? 'changed' : ''}
            aria-current={place === plan.next ? 'step' : undefined}
          >
            {own.name} {own.nth}
            {own.control ? <span className="quiet"> control</span> : null}
            {own.pull ? <span className="quiet"> {own.pull}</span> : null}
          </li>
        ))}
      </ol>
      <ul className="cautions">
        {plan.cautions.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </div>
  )
}

/** Which candidate is run first and last, and which against it. */
function Who({ plan }: { plan: TestPlanReport }) {
  const session = useSession()
  const candidates = useSessionPart((state) => state.answer?.candidates) ?? []
  const control = plan.order[0]?.candidate
  const against = new Set(plan.order.filter((own) => !own.control).map((own) => own.candidate))
  const put = (ids: readonly string[]) => {
    session.edit({ rows: { field: 'dyno_test.against', rows: ids.map((id) => [id]) } })
  }
  return (
    <div className="who-runs no-print">
      <label>
        Control, first and last{' '}
        <Select
          size="small"
          aria-label="Control"
          value={control ?? null}
          options={candidates.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id: string | null) => {
            if (id !== null) session.edit({ set: { field: 'dyno_test.control', text: id } })
          }}
        />
      </label>
      <span role="group" aria-label="Against it">
        {candidates
          .filter(({ id }) => id !== control)
          .map(({ id, name }) => (
            <Checkbox
              key={id}
              checked={against.has(id)}
              onChange={({ target }) => {
                const others = candidates.map((own) => own.id).filter((own) => against.has(own))
                put(target.checked ? [...others, id] : others.filter((own) => own !== id))
              }}
            >
              {name}
            </Checkbox>
          ))}
      </span>
    </div>
  )
}
