import { Button } from 'antd'
import type { ServiceReport } from '../../api/client'
import { answered, client } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { download } from '../pictures/export'
import { today } from '../bench/lines'

/** What is due, the first first, with a calendar to take along. */
export function Due({ report }: { report: ServiceReport }) {
  const system = useSessionPart((state) => state.system)
  if (report.next.length === 0)
    return <p className="quiet">Nothing is due before the log begins.</p>
  const isDated = report.next.some(({ on }) => on)
  return (
    <>
      <div className="wide-table">
        <table className="figures due" aria-label="What is due">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">At</th>
              <th scope="col">About</th>
              <th scope="col">Why then</th>
            </tr>
          </thead>
          <tbody>
            {report.next.map((own) => (
              <tr key={own.id} className={own.overdue ? 'late' : ''}>
                <th scope="row">
                  {own.what}
                  {own.overdue ? (
                    <span className="tight">
                      {own.at <= (report.now ?? 0) ? ', overdue' : ', likely overdue'}
                    </span>
                  ) : null}
                </th>
                <td>{own.at_shown[system]}</td>
                <td>{own.on ?? ''}</td>
                <td className="words">{own.why[system]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {report.by_today ? (
        <p className="quiet">
          If it ran on as before, it has about {report.by_today[system]} by now: write down what it
          really has, and this list is right again.
        </p>
      ) : null}
      {isDated ? (
        <TakeCalendar />
      ) : (
        <p className="quiet">
          No days yet: two entries on different days, at least two weeks apart, tell how much it
          runs.
        </p>
      )}
      <ul className="cautions">
        {report.cautions.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </>
  )
}

/** The same as a file that any calendar reads. */
function TakeCalendar() {
  const session = useSession()
  const take = async () => {
    const { history, summary, system } = session.read()
    const body = { document: history.present, build: summary.id, system, today: today(new Date()) }
    const text = await answered(client.POST('/api/service/calendar', { body, parseAs: 'text' }))
    download(`${summary.name} service.ics`, text, 'text/calendar')
  }
  return (
    <Button size="small" className="no-print" onClick={() => void take()}>
      Take the days along as a calendar
    </Button>
  )
}
