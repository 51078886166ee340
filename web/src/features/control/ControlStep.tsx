import { Segmented, Select } from 'antd'
import { useState } from 'react'
import { shownIn } from '../../model/state'
import { useSessionPart } from '../../model/useSession'
import { Needs } from '../fields/Needs'
import { speed, useSpeed } from '../torque/speed'
import { AtSpeed } from './AtSpeed'
import { Bought } from './Bought'
import { Choices } from './Choices'
import { ContactMap } from './ContactMap'
import './control.css'
import { speedAt } from './map'
import { Measured } from './Measured'
import { Motion } from './Motion'
import { SlowMotion } from './SlowMotion'
import { TrainShares } from './TrainShares'
import { useControl } from './useControl'
import { Worn } from './Worn'

type Side = 'intake' | 'exhaust'

const SIDES: { value: Side; label: string }[] = [
  { value: 'intake', label: 'intake' },
  { value: 'exhaust', label: 'exhaust' },
]

/** Gap, bounce or hang-open that counts as lost control, mm; the usual one is nobody's choice. */
const THRESHOLDS = [
  { value: 0.254, inch: '.010 in', metric: '0.25 mm' },
  { value: 0.508, inch: '.020 in', metric: '0.51 mm' },
  { value: 0.762, inch: '.030 in', metric: '0.76 mm' },
]
const USUAL = 0.508

/** Does the valve follow the lobe, to what speed, and what buys more. */
export function ControlStep() {
  const [side, setSide] = useState<Side>()
  const [threshold, setThreshold] = useState(USUAL)
  const { report, failed, dragged, doing } = useControl(threshold === USUAL ? undefined : threshold)
  const candidate = useSessionPart((state) => state.candidate ?? shownIn(state))
  const chosen = useSpeed()
  const system = useSessionPart((state) => state.system)
  if (failed)
    return <Needs what="Control is computed" reason={failed.reason} needs={failed.needs} />
  if (!report || report.intake.speed_rpm.length === 0)
    return (
      <>
        {report && report.says !== '' ? <p className="answer">{report.says}</p> : null}
        <p className="quiet" role="status">
          {doing === '' ? 'Turning the cam' : doing}…
        </p>
      </>
    )
  const first = lostFirst(report.intake.limiting_speed_rpm, report.exhaust.limiting_speed_rpm)
  const shown = side ?? first
  const own = report[shown]
  const at = speedAt(own, chosen)
  return (
    <>
      {report.says === '' ? null : (
        <p className={`answer ${verdict(report[first].limiting_speed_rpm, report.missed_rpm)}`}>
          {dragged === undefined || dragged === '' ? report.says : `As dragged: ${dragged}`}
        </p>
      )}
      <div className="control-tools">
        <Segmented
          size="small"
          aria-label="Valve looked at"
          options={SIDES}
          value={shown}
          onChange={setSide}
        />
        <Select
          size="small"
          aria-label="What counts as lost control"
          value={threshold}
          onChange={setThreshold}
          options={THRESHOLDS.map((of) => ({
            value: of.value,
            label: `${of[system]} counts as lost`,
          }))}
          popupMatchSelectWidth={false}
        />
        <span className="grow" />
        <span className="quiet" role="status">
          {doing}
        </span>
      </div>
      <div className="answer-pictures">
        <ContactMap report={report} side={own} name={shown} at={at} onAt={(rpm) => speed.to(rpm)} />
        <Motion side={own} name={shown} at={at} />
      </div>
      <SlowMotion rpm={own.speed_rpm[at] ?? 0} />
      {own.beside_hand_check ? <p className="quiet">Beside it {own.beside_hand_check}.</p> : null}
      <Measured candidate={candidate} />
      <Worn report={report} name={first} />
      <Bought bought={report.what_buys_speed} />
      <TrainShares shares={report.shares} name={first} />
      <Choices choices={report.choices} />
      <AtSpeed sides={report} at={at} />
      <p className="quiet">
        {report.gas_computed
          ? 'The gas on the valves is what Torque computed. '
          : 'The gas on the valves is estimated until Torque has run. '}
        Masses, contacts, oil and coils in motion at steady speed, without what is worn; sixteen
        draws over what nobody measures. A planning aid: a spring tester, and the builder who hears
        the engine, stand above it.
      </p>
    </>
  )
}

/** The valve whose limit is the lower one. Pure. */
function lostFirst(intake: number | null | undefined, exhaust: number | null | undefined): Side {
  return (exhaust ?? Infinity) < (intake ?? Infinity) ? 'exhaust' : 'intake'
}

/** The answer's verdict against a missed shift. Pure. */
function verdict(limit: number | null | undefined, missed: number | null | undefined): string {
  if (typeof missed !== 'number') return ''
  return (limit ?? Infinity) >= missed ? 'ok' : 'fails'
}
