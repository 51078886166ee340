import { percent, plain, readIn } from '../../model/figures'
import type { CurveReport } from '../../api/client'
import { useSessionPart } from '../../model/useSession'
import type { Scales } from './chart'

/** Peaks, averages and what they would be in standard air. */
export function Figures({ curve, scales }: { curve: CurveReport; scales: Scales }) {
  const system = useSessionPart((state) => state.system)
  const torque = (nm: number) => readIn(nm, scales.torque)
  const power = (kw: number) => readIn(kw * 1e3, scales.power)
  const at = (rpm: number) => `at ${String(10 * Math.round(rpm / 10))} rpm`
  const humps = (
    of: (peak: CurveReport['peaks'][number]) => number | null | undefined,
    say: (value: number) => string,
  ) =>
    curve.peaks.flatMap((peak) => {
      const value = of(peak)
      if (typeof value !== 'number') return []
      const doubt = `± ${percent(peak.error_share, 0)}`
      return [`${say(value)} ${doubt} ${at(peak.rpm)} ± ${percent(curve.peak_speed_share, 0)}`]
    })
  const torques = humps((peak) => peak.torque_nm, torque)
  const powers = humps((peak) => peak.power_kw, power)
  return (
    <dl className="facts torque-facts">
      <Fact
        name={torques.length > 1 ? 'Torque, every hump' : 'Peak torque'}
        text={torques.join('; ')}
      />
      <Fact
        name={powers.length > 1 ? 'Power, every hump' : 'Peak power'}
        text={powers.join('; ')}
      />
      {typeof curve.average_torque_nm === 'number' ? (
        <Fact name="Average torque over the band" text={torque(curve.average_torque_nm)} />
      ) : null}
      {typeof curve.average_power_kw === 'number' ? (
        <Fact name="Average power over the band" text={power(curve.average_power_kw)} />
      ) : null}
      {curve.idle ? (
        <Fact
          name={`Idle at ${String(Math.round(curve.idle.rpm))} rpm`}
          text={idleOf(curve.idle, system)}
        />
      ) : null}
      {curve.cranking ? (
        <Fact name="Cranking, without leakage" text={curve.cranking[system]} />
      ) : null}
      {curve.standard_air.map((standard) => (
        <Fact
          key={standard.name}
          name={standard.name}
          text={`${power(standard.peak_power_kw)} peak, × ${plain(standard.factor, 3)}`}
        />
      ))}
    </dl>
  )
}

function idleOf(idle: NonNullable<CurveReport['idle']>, system: 'inch' | 'metric'): string {
  const residual = `residual ${percent(idle.residual_fraction, 0)}`
  if (!idle.vacuum) return `does not idle: ${residual} with the throttle open`
  return `${idle.vacuum[system]} vacuum, ${idle.quality}, ${residual}${idle.repeats ? '' : ', hunts'}`
}

function Fact({ name, text }: { name: string; text: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>{text}</dd>
    </div>
  )
}
