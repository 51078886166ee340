import { Button, Select } from 'antd'
import { useSession, useSessionPart } from '../../model/useSession'
import { BoardTable } from './BoardTable'
import { rowsOf, SCORED, weighed } from './columns'
import { LastPower } from './LastPower'
import './score.css'
import { useScore } from './useScore'

const NONE: readonly (readonly string[])[] = []

/** Candidates ranked column by column as a contest or a customer counts them, and what the last of power costs. */
export function Board() {
  const session = useSession()
  const score = useScore()
  const system = useSessionPart((state) => state.system)
  const asked =
    useSessionPart(
      (state) => state.answer?.fields?.find(({ field }) => field === 'target.score')?.table?.rows,
    ) ?? NONE
  const { report } = score
  if (!score.isAsked)
    return (
      <section className="board" aria-label="Score board">
        <h2>Score board</h2>
        <p>
          <Button size="small" onClick={score.ask}>
            Score every candidate in full
          </Button>{' '}
          <span className="quiet">
            ranks by column, lowest points win; some seconds a candidate
          </span>
        </p>
      </section>
    )
  const rows = report ? rowsOf(report.columns, asked) : []
  const put = (to: readonly (readonly string[])[]) => {
    session.edit({ rows: { field: 'target.score', rows: to.map((row) => [...row]) } })
  }
  const left = SCORED.filter(([id]) => !rows.some(([own]) => own === id))
  return (
    <section className="board" aria-label="Score board">
      <h2>Score board</h2>
      {score.doing ? (
        <p className="quiet" role="status">
          {score.doing}…
        </p>
      ) : null}
      {score.error ? <p>{score.error}</p> : null}
      {report ? (
        <>
          {report.last_power ? <p className="answer">{report.last_power[system]}.</p> : null}
          <BoardTable
            report={report}
            onWeight={(place, weight) => {
              put(weighed(rows, place, weight))
            }}
            onRemove={(place) => {
              put(rows.filter((_, i) => i !== place))
            }}
          />
          <p>
            <Select
              size="small"
              aria-label="Add a column"
              placeholder="add a column"
              value={null}
              popupMatchSelectWidth={false}
              options={left.map(([value, label]) => ({ value, label }))}
              onChange={(id: string) => {
                put([...rows, [id, '1', '', '']])
              }}
            />{' '}
            <span className="quiet">
              Equal values share the lower rank; the lowest sum of weight times rank wins. Columns
              over other speeds: the plan&apos;s score board. Computed in full, trains turned by the
              usual; a rank is no nearer to the truth than its figure.
            </span>
          </p>
          <LastPower rows={report.rows} />
        </>
      ) : null}
    </section>
  )
}
