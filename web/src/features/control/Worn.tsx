import type { DynamicsReport } from '../../api/client'
import { percent, plain } from '../../model/figures'

/** What springs that have lost load leave of the limit: when to look at them. */
export function Worn({ report, name }: { report: DynamicsReport; name: 'intake' | 'exhaust' }) {
  if (report.worn.length === 0) return null
  const limits = report.worn.map(
    (worn) => `${percent(worn.load_share, 0)} of their load ${plain(worn.limiting_speed_rpm)} rpm`,
  )
  const missed = report.missed_rpm
  const own = report[name].limiting_speed_rpm
  const first =
    typeof missed === 'number'
      ? report.worn.find((worn) => worn.limiting_speed_rpm < missed)
      : undefined
  const speeds = [own ?? Infinity, ...report.worn.map((worn) => worn.limiting_speed_rpm)]
  const falls = speeds.every((speed, place) => place === 0 || speed <= (speeds[place - 1] ?? 0))
  return (
    <p>
      As springs tire the {name} limit moves: with {limits.join(', ')}.{' '}
      {falls
        ? ''
        : 'It does not simply fall: where coils’ waves decide, a softer spring meets them at other speeds. '}
      {first
        ? `Below ${percent(first.load_share, 0)} a missed shift is beyond it.`
        : typeof missed === 'number'
          ? 'A missed shift stays within it.'
          : ''}{' '}
      <span className="quiet">
        Springs on high-lift cams are looked at or renewed every 20,000 to 25,000 miles, any set at
        30,000; a tenth of the load lost is the usual end. Good springs under a low-lift cam lose
        none in that distance.
      </span>
    </p>
  )
}
