import { Button, Slider } from 'antd'
import { useState } from 'react'
import type { PhasingReport } from '../../api/client'
import { tenths } from '../../model/figures'
import { useCandidate, useLengthScale, useSession, useSessionPart } from '../../model/useSession'
import { Chart } from '../charts/Chart'
import { nearestTo } from '../charts/series'
import { Needs } from '../fields/Needs'
import { gapCurves, saysAt, stretchesOf, torqueCurves } from './phasing'
import { TimingSteps } from './TimingSteps'
import { usePhasing } from './usePhasing'
import { Worked } from './Worked'

/** The cam turned as a whole: where it stays clear, what it makes there, and setting it by one drag. */
export function PhasingWindow() {
  const { report, isOld, doing, failed, error } = usePhasing()
  return (
    <Worked label="Phasing window" isOld={isOld && !failed} doing={doing} error={error}>
      {failed ? (
        <Needs what="The window is known" reason={failed.reason} needs={failed.needs} />
      ) : report ? (
        <Window report={report} />
      ) : null}
    </Worked>
  )
}

function Window({ report }: { report: PhasingReport }) {
  const scale = useLengthScale()
  const system = useSessionPart((state) => state.system)
  const [at, setAt] = useState(0)
  const place = nearestTo(at, report.advance_deg)
  if (!scale) return null
  const here = report.advance_deg[place] ?? 0
  const stretches = stretchesOf(report)
  const x = { unit: 'deg advanced' }
  return (
    <>
      <p className="answer">{report.says[system]}</p>
      <Turn report={report} place={place} onTurn={setAt} />
      <Chart
        label="Gap between valve and piston over how the cam is set"
        name="phasing-gaps"
        height={180}
        curves={gapCurves(report, scale)}
        x={x}
        y={{ unit: scale.unit, from: 0 }}
        stretches={stretches}
        at={here}
        onAt={setAt}
      />
      {report.torque ? (
        <Chart
          label="Torque and power over how the cam is set, against how it is"
          name="phasing-torque"
          height={150}
          curves={torqueCurves(report)}
          x={x}
          y={{ unit: '%' }}
          stretches={stretches}
          at={here}
          onAt={setAt}
        />
      ) : null}
      <TimingSteps report={report} onLook={setAt} />
    </>
  )
}

/** One drag turns the cam; letting go sets nothing until it is said. */
function Turn({
  report,
  place,
  onTurn,
}: {
  report: PhasingReport
  place: number
  onTurn: (deg: number) => void
}) {
  const session = useSession()
  const candidate = useCandidate()?.id
  const here = report.advance_deg[place] ?? 0
  const system = useSessionPart((state) => state.system)
  const centreline = report.intake_centreline_deg[place]
  const vacuum = report.torque?.idle_vacuum_shown?.[place]?.[system]
  const set = (deg: number) => {
    const to = report.intake_centreline_deg[nearestTo(deg, report.advance_deg)]
    if (candidate === undefined || to === undefined) return
    session.edit({
      type_card: { candidate, number: 'intake_centreline', text: `${to.toFixed(1)} deg` },
    })
    onTurn(0)
  }
  return (
    <div className="turn">
      <Slider
        ariaLabelForHandle="Cam turned, crank degrees advanced"
        min={report.advance_deg[0] ?? 0}
        max={report.advance_deg.at(-1) ?? 0}
        step={0.5}
        value={here}
        onChange={onTurn}
        tooltip={{ open: false }}
      />
      <p role="status">
        {saysAt(report, place)}
        {vacuum ? ` Vacuum at idle ${vacuum}.` : ''}{' '}
        {here === 0 || centreline === undefined ? null : (
          <Button size="small" onClick={() => set(here)}>
            set it here: intake centreline {tenths(centreline)} deg
          </Button>
        )}{' '}
        {typeof report.best_deg === 'number' && report.best_deg !== 0 ? (
          <Button size="small" type="text" onClick={() => onTurn(report.best_deg ?? 0)}>
            look at the best place
          </Button>
        ) : null}
      </p>
    </div>
  )
}
