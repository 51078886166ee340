import type { KeyboardEvent } from 'react'
import { useRef } from 'react'
import type { CurveReport } from '../../api/client'
import { decimalsOf, ticks } from '../strip/geometry'
import { useWidth } from '../strip/useWidth'
import type { Scales, TorqueFrame } from './chart'
import { bandOf, frameOf, lineOf, rpmOf, xOf, yOf } from './chart'
import { nearest, speed } from './speed'

const HEIGHT = 270

export interface OtherCurve {
  readonly name: string
  readonly curve: CurveReport
}

interface Props {
  readonly curve: CurveReport
  readonly before: CurveReport | undefined
  readonly others: readonly OtherCurve[]
  readonly scales: Scales
  readonly at: number
}

/** Torque and power over speed in the plan's band, with the error that may be expected. */
export function TorqueChart({ curve, before, others, scales, at }: Props) {
  const holder = useRef<HTMLDivElement>(null)
  const width = useWidth(holder)
  const frame = frameOf(
    [curve, ...(before ? [before] : []), ...others.map((other) => other.curve)],
    scales,
    width,
    HEIGHT,
  )
  const move = (places: number) => {
    const next = curve.speed_rpm[Math.min(Math.max(at + places, 0), curve.speed_rpm.length - 1)]
    if (next !== undefined) speed.to(next)
  }
  const keys = (event: KeyboardEvent) => {
    const places = { ArrowRight: 1, ArrowLeft: -1, Home: -99, End: 99 }[event.key]
    if (places === undefined) return
    event.preventDefault()
    move(places)
  }
  const rpm = curve.speed_rpm[at] ?? 0
  return (
    <div ref={holder} className="torque-chart">
      <svg
        width={width}
        height={HEIGHT}
        role="slider"
        tabIndex={0}
        aria-label="Speed looked at"
        aria-valuemin={Math.round(frame.from)}
        aria-valuemax={Math.round(frame.to)}
        aria-valuenow={Math.round(rpm)}
        aria-valuetext={`${Math.round(rpm)} rpm`}
        onKeyDown={keys}
        onPointerDown={(event) => {
          speed.to(
            curve.speed_rpm[nearest(curve.speed_rpm, rpmOf(frame, event.nativeEvent.offsetX), 0)] ??
              0,
          )
        }}
      >
        <Target frame={frame} curve={curve} />
        <Axes frame={frame} scales={scales} />
        <path className="error-band" d={bandOf(frame, curve, scales.torque)} />
        {before ? <Lines frame={frame} curve={before} scales={scales} className="before" /> : null}
        {others.map((other, place) => (
          <Lines
            key={other.name}
            frame={frame}
            curve={other.curve}
            scales={scales}
            className={`other other-${place % 3}`}
            name={other.name}
            nameAt={3 * place + 1}
          />
        ))}
        <Lines
          frame={frame}
          curve={curve}
          scales={scales}
          className=""
          name="torque"
          powerName="power"
        />
        <Pulled frame={frame} curve={curve} scales={scales} />
        <g className="marked">
          <line
            x1={xOf(frame, rpm)}
            x2={xOf(frame, rpm)}
            y1={frame.top}
            y2={HEIGHT - frame.bottom}
          />
          <text
            x={Math.min(Math.max(xOf(frame, rpm), frame.left + 70), frame.width - frame.right - 60)}
            y={frame.top - 5}
            textAnchor="middle"
          >
            {Math.round(rpm)} rpm
          </text>
        </g>
      </svg>
    </div>
  )
}

/** What a dyno measured, point by point. */
function Pulled({
  frame,
  curve,
  scales,
}: {
  frame: TorqueFrame
  curve: CurveReport
  scales: Scales
}) {
  const inside = curve.pulled.filter(([rpm = 0]) => rpm >= frame.from && rpm <= frame.to)
  return (
    <g
      className="pulled"
      role="img"
      aria-label={inside.length > 0 ? `${String(inside.length)} measured points` : undefined}
      aria-hidden={inside.length === 0}
    >
      {inside.map(([rpm = 0, nm = 0], place) => (
        <circle
          key={place}
          cx={xOf(frame, rpm)}
          cy={yOf(frame, nm / scales.torque.factor, frame.torque)}
          r="2.6"
        />
      ))}
    </g>
  )
}

/** What the plan wants: its band, the power peak, the shift. */
function Target({ frame, curve }: { frame: TorqueFrame; curve: CurveReport }) {
  const [from = 0, to = 0] = curve.band_rpm
  const height = frame.height - frame.top - frame.bottom
  const mark = (rpm: number | null | undefined, text: string, end: 'end' | 'start', up: number) =>
    typeof rpm !== 'number' || rpm < frame.from || rpm > frame.to ? null : (
      <g className="wanted">
        <line
          x1={xOf(frame, rpm)}
          x2={xOf(frame, rpm)}
          y1={frame.top}
          y2={frame.height - frame.bottom}
        />
        <text
          x={xOf(frame, rpm) + (end === 'end' ? -4 : 4)}
          y={frame.height - frame.bottom - up}
          textAnchor={end}
        >
          {text}
        </text>
      </g>
    )
  return (
    <>
      <rect
        className="target-band"
        x={xOf(frame, from)}
        width={Math.max(0, xOf(frame, to) - xOf(frame, from))}
        y={frame.top}
        height={height}
      />
      {mark(curve.peak_wanted_rpm, 'power peak wanted', 'end', 5)}
      {mark(curve.shift_rpm, 'shift', 'end', 20)}
    </>
  )
}

function Axes({ frame, scales }: { frame: TorqueFrame; scales: Scales }) {
  const bottom = frame.height - frame.bottom
  const speeds = ticks(frame.from, frame.to, Math.max(4, frame.width / 110))
  const torques = ticks(frame.torque.least, frame.torque.most, 6)
  const powers = ticks(frame.power.least, frame.power.most, 6)
  return (
    <g className="axes">
      {torques.map((value) => {
        const y = yOf(frame, value, frame.torque)
        return (
          <g key={value}>
            <line x1={frame.left} x2={frame.width - frame.right} y1={y} y2={y} />
            <text x={frame.left - 6} y={y + 4} textAnchor="end">
              {value.toFixed(decimalsOf(torques))}
            </text>
          </g>
        )
      })}
      {powers.map((value) => (
        <text key={value} x={frame.width - frame.right + 6} y={yOf(frame, value, frame.power) + 4}>
          {value.toFixed(decimalsOf(powers))}
        </text>
      ))}
      {speeds.map((rpm) => (
        <text key={rpm} x={xOf(frame, rpm)} y={bottom + 15} textAnchor="middle">
          {rpm}
        </text>
      ))}
      <text x={frame.left} y={frame.top - 3}>
        {scales.torque.unit}
      </text>
      <text x={frame.width - frame.right} y={frame.top - 3} textAnchor="end">
        {scales.power.unit}
      </text>
      <text x={frame.width - frame.right} y={frame.height - 1} textAnchor="end">
        rpm
      </text>
    </g>
  )
}

interface LinesProps {
  readonly frame: TorqueFrame
  readonly curve: CurveReport
  readonly scales: Scales
  readonly className: string
  readonly name?: string
  readonly powerName?: string
  /** Points from the end at which the name of another curve stands, so that names keep apart. */
  readonly nameAt?: number
}

function Lines({ frame, curve, scales, className, name, powerName, nameAt }: LinesProps) {
  const torques = curve.torque_nm.map((nm) => nm / scales.torque.factor)
  const powers = curve.power_kw.map((kw) => (kw * 1e3) / scales.power.factor)
  const at = nameAt === undefined ? 0 : Math.max(0, curve.speed_rpm.length - 1 - nameAt)
  const above = nameAt === undefined ? 1 + (curve.error_share[0] ?? 0) : 1
  const x = xOf(frame, curve.speed_rpm[at] ?? 0) + (nameAt === undefined ? 4 : 0)
  return (
    <g className={`curve ${className}`}>
      <path className="power-line" d={lineOf(frame, curve.speed_rpm, powers, frame.power)} />
      <path className="torque-line" d={lineOf(frame, curve.speed_rpm, torques, frame.torque)} />
      {powerName ? (
        <text className="power-name" x={x} y={yOf(frame, powers[0] ?? 0, frame.power) + 16}>
          {powerName}
        </text>
      ) : null}
      {name ? (
        <text
          className="torque-name"
          x={x}
          y={yOf(frame, (torques[at] ?? 0) * above, frame.torque) - 5}
          textAnchor={nameAt === undefined ? 'start' : 'middle'}
        >
          {name}
        </text>
      ) : null}
    </g>
  )
}
