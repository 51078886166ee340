import { Segmented, Select } from 'antd'
import { useState } from 'react'
import type { DynamicsReport } from '../../api/client'
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
import type { ShownControl } from './useControl'
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
  const control = useControl(threshold === USUAL ? undefined : threshold)
  const candidate = useSessionPart((state) => state.candidate ?? shownIn(state))
  const { report, failed, doing } = control
  if (failed)
    return <Needs what="Control is computed" reason={failed.reason} needs={failed.needs} />
  const turned = report && report.intake.speed_rpm.length > 0 ? report : undefined
  // What was measured keeps its place while a changed train is turned anew, so that a fit just taken stays to be read.
  return (
    <>
      {turned ? (
        <Turned
          control={control}
          report={turned}
          side={side ?? lostFirst(turned)}
          onSide={setSide}
          threshold={threshold}
          onThreshold={setThreshold}
        />
      ) : (
        <>
          {report && report.says !== '' ? <p className="answer">{report.says}</p> : null}
          <p className="quiet" role="status">
            {doing === '' ? 'Turning the cam' : doing}…
          </p>
        </>
      )}
      <Measured candidate={candidate} />
      {turned ? <Around report={turned} side={side ?? lostFirst(turned)} /> : null}
    </>
  )
}

/** The answer, the map of contacts and the motion at the speed looked at. */
function Turned({
  control: { dragged, doing },
  report,
  side,
  onSide,
  threshold,
  onThreshold,
}: {
  control: ShownControl
  report: DynamicsReport
  side: Side
  onSide: (side: Side) => void
  threshold: number
  onThreshold: (mm: number) => void
}) {
  const chosen = useSpeed()
  const system = useSessionPart((state) => state.system)
  const first = lostFirst(report)
  const own = report[side]
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
          value={side}
          onChange={onSide}
        />
        <Select
          size="small"
          aria-label="What counts as lost control"
          value={threshold}
          onChange={onThreshold}
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
        <ContactMap report={report} side={own} name={side} at={at} onAt={(rpm) => speed.to(rpm)} />
        <Motion side={own} name={side} at={at} />
      </div>
      <SlowMotion rpm={own.speed_rpm[at] ?? 0} />
      {own.beside_hand_check ? <p className="quiet">Beside it {own.beside_hand_check}.</p> : null}
    </>
  )
}

/** What wears it, what buys more speed, and everything else about the train. */
function Around({ report, side }: { report: DynamicsReport; side: Side }) {
  const chosen = useSpeed()
  const first = lostFirst(report)
  return (
    <>
      <Worn report={report} name={first} />
      <Bought bought={report.what_buys_speed} />
      <TrainShares shares={report.shares} name={first} />
      <Choices choices={report.choices} />
      <AtSpeed sides={report} at={speedAt(report[side], chosen)} />
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
function lostFirst({ intake, exhaust }: DynamicsReport): Side {
  const limit = (of: typeof intake) => of.limiting_speed_rpm ?? Infinity
  return limit(exhaust) < limit(intake) ? 'exhaust' : 'intake'
}

/** The answer's verdict against a missed shift. Pure. */
function verdict(limit: number | null | undefined, missed: number | null | undefined): string {
  if (typeof missed !== 'number') return ''
  return (limit ?? Infinity) >= missed ? 'ok' : 'fails'
}
