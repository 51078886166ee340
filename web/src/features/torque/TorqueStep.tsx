import { Select } from 'antd'
import { useMemo, useState } from 'react'
import { percent } from '../../model/figures'
import { useAsked } from '../../model/useAsked'
import { Needs } from '../fields/Needs'
import { factorOf, inAir } from './air'
import { BoostTable } from './BoostTable'
import { ComputedLimits } from './ComputedLimits'
import { Cycle } from './Cycle'
import { Energy } from './Energy'
import { Figures } from './Figures'
import { Fit } from './Fit'
import { Movers } from './Movers'
import { Ranges } from './Ranges'
import { nearest, useSpeed } from './speed'
import { SpeedTable } from './SpeedTable'
import { TorqueChart } from './TorqueChart'
import { useShownCurve } from './useCurve'
import { useScales } from './useScales'
import { useOtherLevels, useOthers } from './useOthers'
import './torque.css'

/** Torque and power of the candidate in view, others beside it, and one cycle at the speed looked at. */
export function TorqueStep() {
  const [level, setLevel] = useState<string>()
  const [overlaid, setOverlaid] = useState(false)
  const [levels, setLevels] = useState(false)
  const shown = useShownCurve(level)
  const others = useOthers(overlaid, level)
  const otherLevels = useOtherLevels(levels, shown.curve)
  const scales = useScales()
  const chosen = useSpeed()
  const [air, setAir] = useState<string>()
  const fit = useAsked('calibration')
  const factor = shown.curve ? factorOf(shown.curve, air) : 1
  const curve = useMemo(
    () => (shown.curve ? inAir(shown.curve, factor) : undefined),
    [shown.curve, factor],
  )
  const overlaidCurves = [...others.curves, ...otherLevels.curves].map((other) => ({
    ...other,
    curve: inAir(other.curve, factorOf(other.curve, air)),
  }))
  if (shown.failed)
    return (
      <Needs what="Torque is computed" reason={shown.failed.reason} needs={shown.failed.needs} />
    )
  if (!curve || !scales)
    return (
      <p className="quiet" role="status">
        {shown.doing === '' ? 'Working out the first speeds…' : `${shown.doing}…`}
      </p>
    )
  const at = nearest(curve.speed_rpm, chosen, curve.peak_power_rpm)
  const rpm = curve.speed_rpm[at]
  return (
    <>
      <div className="torque-tools">
        <label className="check">
          <input
            type="checkbox"
            checked={overlaid}
            onChange={(event) => setOverlaid(event.target.checked)}
          />{' '}
          other candidates
        </label>
        {curve.level_names.length > 1 ? (
          <Select
            size="small"
            aria-label="Boost level"
            value={curve.level ?? ''}
            onChange={setLevel}
            options={curve.level_names.map((name) => ({ value: name, label: name }))}
          />
        ) : null}
        {curve.level_names.length > 1 ? (
          <label className="check">
            <input
              type="checkbox"
              checked={levels}
              onChange={(event) => setLevels(event.target.checked)}
            />{' '}
            every boost level
          </label>
        ) : null}
        {curve.standard_air.length > 0 ? (
          <Select
            size="small"
            aria-label="Air the curves are stated in"
            value={air ?? ''}
            onChange={(name) => setAir(name === '' ? undefined : name)}
            popupMatchSelectWidth={false}
            options={[
              { value: '', label: "in the plan's air" },
              ...curve.standard_air.map(({ name }) => ({ value: name, label: `in ${name}` })),
            ]}
          />
        ) : null}
        <span className="grow" />
        <span className="quiet" role="status">
          {shown.doing}
        </span>
      </div>
      <TorqueChart
        curve={curve}
        before={shown.before ? inAir(shown.before, factor) : undefined}
        others={overlaidCurves}
        scales={scales}
        at={at}
      />
      {[...others.notes, ...otherLevels.notes].map((note) => (
        <p key={note} className="quiet" role="status">
          {note}.
        </p>
      ))}
      <Figures curve={curve} scales={scales} />
      {curve.dips.map(({ rpm, share, why }) => (
        <p key={rpm} className="quiet">
          Torque dips by {percent(share, 0)} at {Math.round(rpm)} rpm: {why}.
        </p>
      ))}
      <Energy curve={curve} at={at} />
      <Ranges figures={curve.figures} />
      {otherLevels.curves.length > 0 ? (
        <BoostTable curves={[{ name: curve.level ?? '', curve }, ...otherLevels.curves]} />
      ) : null}
      <ComputedLimits />
      <Fit fit={fit} curve={shown.curve ?? curve} scales={scales} />
      <Movers />
      <SpeedTable curve={curve} at={at} />
      {shown.traces ? <Cycle trace={shown.traces.find((trace) => trace.rpm === rpm)} /> : null}
      {shown.lacks ? (
        <Needs
          what="All cylinders together are computed"
          reason={shown.lacks.reason}
          needs={shown.lacks.needs}
        />
      ) : null}
      <p className="quiet">
        {curve.mode}. Error: {curve.error_band}.
      </p>
    </>
  )
}
