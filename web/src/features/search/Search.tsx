import { Button, Checkbox, InputNumber, Select } from 'antd'
import { useState } from 'react'
import type { Goal, SearchPoint, SearchReport, Start, UnitSystem } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import '../choose/choose.css'
import { KeepButton } from '../candidates/KeepButton'
import { percent } from '../choose/sweep'
import { Needs } from '../fields/Needs'
import { Finalists } from './Finalists'
import type { Filter } from './figures'
import { passes } from './figures'
import './search.css'
import { TradeOff } from './TradeOff'
import type { ShownSearch } from './useSearch'

const STARTS: readonly { value: Start; label: string }[] = [
  { value: 'new_cam', label: 'a new cam and what runs on it' },
  { value: 'ratio', label: 'only the rocker ratio' },
  { value: 'springs', label: 'only springs and retainers' },
  { value: 'timing', label: 'only when the cam runs' },
  { value: 'breathing', label: 'compression, runner, primary' },
]
const GOALS: readonly { value: Goal; label: string }[] = [
  { value: 'average_torque', label: 'average torque' },
  { value: 'peak_power', label: 'power where wanted' },
  { value: 'low_torque', label: 'low-speed torque' },
  { value: 'control', label: 'reserve of control' },
  { value: 'life', label: 'spring life' },
  { value: 'money', label: 'money' },
]

/** A search under every limit: what it may change, what is wanted, candidates as they come, finalists and prices. */
export function Search({ search }: { search: ShownSearch }) {
  const system = useSessionPart((state) => state.system)
  const [start, setStart] = useState<Start>('new_cam')
  const [goals, setGoals] = useState<readonly Goal[]>([
    'average_torque',
    'peak_power',
    'low_torque',
  ])
  const { report, points, doing, failed } = search
  return (
    <section className="search" aria-label="Search">
      <h3>Search under every limit</h3>
      <div className="search-asks">
        <Select
          size="small"
          aria-label="What may be changed"
          value={start}
          options={[...STARTS]}
          popupMatchSelectWidth={false}
          onChange={setStart}
        />
        <Checkbox.Group
          aria-label="What is wanted"
          options={[...GOALS]}
          value={[...goals]}
          onChange={setGoals}
        />
        {doing === '' ? (
          <Button
            size="small"
            type="primary"
            disabled={goals.length === 0}
            onClick={() => {
              search.begin({ start, goals })
            }}
          >
            Search
          </Button>
        ) : (
          <Button size="small" onClick={search.stop}>
            Pause
          </Button>
        )}
      </div>
      {doing === '' ? null : (
        <p className="quiet" role="status">
          {doing}… What was computed is kept: a paused search goes on where it was.
        </p>
      )}
      {search.error === undefined ? null : <p className="caution">{search.error}</p>}
      {failed ? <Needs what="A search" reason={failed.reason} needs={failed.needs} /> : null}
      {points.length > 1 ? (
        <TradeOff points={points} stands={undefined} chosen={undefined} onChoose={undefined} />
      ) : null}
      {search.isOld && report ? (
        <p className="caution">The candidate has changed since: search again.</p>
      ) : null}
      {report ? <Found report={report} system={system} /> : null}
    </section>
  )
}

function Found({ report, system }: { report: SearchReport; system: UnitSystem }) {
  const [filter, setFilter] = useState<Filter>({ limit: undefined, least: undefined })
  const [chosen, setChosen] = useState<SearchPoint>()
  const all = [...report.front, ...report.finalists.map(({ point }) => point)]
  const points = all.filter((point) => passes(point, filter))
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
          <Filters report={report} filter={filter} onFilter={setFilter} count={points.length} />
          <Looked point={chosen} report={report} system={system} />
        </div>
        <Prices report={report} system={system} />
      </div>
      <Finalists report={report} system={system} />
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

interface FiltersProps {
  readonly report: SearchReport
  readonly filter: Filter
  readonly onFilter: (filter: Filter) => void
  readonly count: number
}

function Filters({ report, filter, onFilter, count }: FiltersProps) {
  const limit = filter.limit === undefined ? undefined : report.limits[filter.limit]
  return (
    <div className="search-asks">
      <Select
        size="small"
        allowClear
        showSearch={{ optionFilterProp: 'label' }}
        aria-label="Only with room in"
        placeholder="only with room in…"
        popupMatchSelectWidth={false}
        value={filter.limit}
        options={report.limits.map(({ title, unit }, i) => ({
          value: i,
          label: `${title}, ${unit}`,
        }))}
        onChange={(place: number | undefined) => {
          onFilter({ limit: place, least: place === undefined ? undefined : 0 })
        }}
      />
      {limit ? (
        <InputNumber
          size="small"
          aria-label={`At least so much left, ${limit.unit}`}
          value={filter.least ?? 0}
          suffix={limit.unit}
          onChange={(least) => {
            onFilter({ ...filter, least: typeof least === 'number' ? least : 0 })
          }}
        />
      ) : null}
      <span className="quiet">{count} candidates</span>
    </div>
  )
}

interface LookedProps {
  readonly point: SearchPoint | undefined
  readonly report: SearchReport
  readonly system: UnitSystem
}

/** The candidate that is pointed at. */
function Looked({ point, report, system }: LookedProps) {
  if (!point) return <p className="quiet">Point at a candidate to see what it is.</p>
  const finalist = report.finalists.find((each) => each.point === point)
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

function Prices({ report, system }: { report: SearchReport; system: UnitSystem }) {
  return (
    <div>
      <h4>What a little more would buy</h4>
      {report.prices.length === 0 ? (
        <p className="quiet">No limit that was priced holds the best back.</p>
      ) : (
        <table className="figures">
          <tbody>
            {report.prices.map((price) => (
              <tr key={price.title}>
                <th scope="row">
                  {price.title}, {price.unit[system]}
                </th>
                <td>{price.buys[system]}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="quiet">Everything chosen anew with the limit moved, on the same ground.</p>
    </div>
  )
}
