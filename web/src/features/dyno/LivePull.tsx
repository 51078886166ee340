import { Button, Select } from 'antd'
import { useState } from 'react'
import type { PullsReport, TestPlanReport } from '../../api/client'
import { useSession, useSessionPart } from '../../model/useSession'
import { Instruments } from '../bench/Instruments'
import { Chart } from '../charts/Chart'
import { useScales } from '../torque/useScales'
import { today } from '../bench/lines'
import { takenLive } from './pulls'
import type { DynoLive } from './useDynoLive'
import { useDynoLive } from './useDynoLive'

interface Props {
  readonly plan: TestPlanReport
  readonly report: PullsReport
}

/** The dyno as it reads now, in figures that are seen from the lever; each pull that is over is taken in as the next of the plan. */
export function LivePull({ plan, report }: Props) {
  const session = useSession()
  const [said, setSaid] = useState('')
  const [isOpen, setOpen] = useState(false)
  const next = typeof plan.next === 'number' ? plan.order[plan.next] : undefined
  const live = useDynoLive((file) => {
    if (!next) {
      setSaid('A pull was run and not taken in: the plan has none left.')
      return
    }
    session.edit(takenLive(file, next.candidate, today(new Date()), report.pulls))
    setSaid(`Taken in: ${next.name}, pull ${String(next.nth)}.`)
  })
  return (
    <div className="live-dyno">
      <div className="pull-tools no-print">
        {live.names.length > 0 ? (
          <Select
            aria-label="Dyno"
            size="small"
            placeholder="no dyno listened to"
            popupMatchSelectWidth={false}
            value={live.name ?? null}
            options={live.names.map((name) => ({ value: name, label: name }))}
            onChange={(name: string | null) => {
              if (name !== null) live.choose(name)
            }}
          />
        ) : (
          <span className="quiet">A dyno that sends lines can be listened to.</span>
        )}
        <Button size="small" type="text" onClick={() => setOpen(true)}>
          Instruments
        </Button>
        <span role="status">{said}</span>
      </div>
      {live.line ? <Reads live={live} plan={plan} /> : null}
      {isOpen ? <Instruments onClose={() => setOpen(false)} /> : null}
    </div>
  )
}

function Reads({ live, plan }: { live: DynoLive; plan: TestPlanReport }) {
  const system = useSessionPart((state) => state.system)
  const scales = useScales()
  const { line } = live
  const dyno = line?.dyno
  if (!dyno)
    return (
      <p className="quiet" role="status">
        {line?.state === 'away'
          ? `The dyno is away: ${line.says ?? ''}`
          : 'The dyno sends nothing yet.'}
      </p>
    )
  const windows = plan.windows
  return (
    <>
      <div className="dyno-figures">
        <output aria-label="Speed">
          {Math.round(dyno.rpm)} <small>rpm</small>
        </output>
        <output aria-label="Torque">{dyno.torque[system]}</output>
        <Held title="oil" shown={dyno.oil?.[system]} c={dyno.oil_c} window={windows.oil_c} />
        <Held
          title="water"
          shown={dyno.water?.[system]}
          c={dyno.water_c}
          window={windows.water_c}
        />
        <span className="dyno-state">
          {line.state === 'live' ? (dyno.pulling ? 'pulling' : 'waiting') : line.state}
        </span>
      </div>
      {scales && live.points.length > 1 ? (
        <Chart
          label="The pull as it comes"
          name="pull"
          curves={[
            {
              name: 'torque',
              points: live.points.map(([rpm, nm]) => [rpm, nm / scales.torque.factor]),
              ink: 'one',
            },
          ]}
          x={{ unit: 'rpm' }}
          y={{ unit: scales.torque.unit }}
          height={150}
        />
      ) : null}
    </>
  )
}

interface HeldProps {
  readonly title: string
  readonly shown: string | undefined
  readonly c: number | null | undefined
  readonly window: TestPlanReport['windows']['oil_c']
}

/** A temperature, and whether a pull may begin at it. */
function Held({ title, shown, c, window }: HeldProps) {
  if (shown === undefined || typeof c !== 'number') return null
  const [from, to] = [window[0], window[1]]
  const word =
    typeof from === 'number' && c < from
      ? 'too cold'
      : typeof to === 'number' && c > to
        ? 'too hot'
        : typeof from === 'number' || typeof to === 'number'
          ? 'in its window'
          : ''
  return (
    <output aria-label={title} className={word.startsWith('too') ? 'out' : ''}>
      {shown} <small>{`${title}${word === '' ? '' : `, ${word}`}`}</small>
    </output>
  )
}
