import { Button, Checkbox, Select } from 'antd'
import { useState } from 'react'
import type { BesideSetup, Goal, Start } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import '../choose/choose.css'
import { Needs } from '../fields/Needs'
import { Found } from './Found'
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

/** Shares of engines that may fail a limit when they are built; nothing where nobody asks. */
const FAILS: readonly { value: number; label: string }[] = [
  { value: 1, label: 'however many fail when built' },
  { value: 0.2, label: 'at most 20 in 100 fail by what is chosen' },
  { value: 0.05, label: 'at most 5 in 100 fail by what is chosen' },
  { value: 0.01, label: 'at most 1 in 100 fails by what is chosen' },
]

interface Props {
  readonly search: ShownSearch
  /** Candidates to hold what is found against. */
  readonly beside: readonly BesideSetup[]
}

/** A search under every limit: what it may change, what is wanted, candidates as they come, finalists and prices. */
export function Search({ search, beside }: Props) {
  const system = useSessionPart((state) => state.system)
  const [start, setStart] = useState<Start>('new_cam')
  const [goals, setGoals] = useState<readonly Goal[]>([
    'average_torque',
    'peak_power',
    'low_torque',
  ])
  const [mostFails, setMostFails] = useState(1)
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
        <Select
          size="small"
          aria-label="How many engines may fail a limit"
          value={mostFails}
          options={[...FAILS]}
          popupMatchSelectWidth={false}
          onChange={setMostFails}
        />
        {doing === '' ? (
          <Button
            size="small"
            type="primary"
            disabled={goals.length === 0}
            onClick={() => {
              // Another cam is held against the schools' cams; other hardware against what stands.
              search.begin({
                start,
                goals,
                beside: start === 'new_cam' ? beside : [],
                most_fails: mostFails < 1 ? mostFails : null,
              })
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
