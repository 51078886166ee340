import type { CurveReport, Scale } from '../../api/client'
import type { Band, Curve, Ink, Stretch } from '../charts/series'
import { valueAt } from '../charts/series'
import type { Scales } from '../torque/chart'
import { powerOf, torqueOf } from '../torque/chart'

/** Curves of several candidates laid together. Pure. */

export interface Named {
  readonly id: string
  readonly name: string
  readonly curve: CurveReport
  /** Its own, whichever others are shown. */
  readonly ink: Ink
}

/** Torque and power of each, one ink for a candidate, over the band that is wanted. */
export function overlaidOf(
  named: readonly Named[],
  scales: Scales,
): { curves: Curve[]; stretches: Stretch[] } {
  const curves = named.flatMap(({ name, curve, ink }): Curve[] => [
    { name, points: torqueOf(curve, scales), ink },
    {
      name: `${name}, power`,
      points: powerOf(curve, scales),
      ink,
      right: true,
      beside: true,
    },
  ])
  return { curves, stretches: wantedOf(named) }
}

function wantedOf(named: readonly Named[]): Stretch[] {
  const [from = 0, to = 0] = named[0]?.curve.band_rpm ?? []
  return to > from ? [{ from, to, kind: 'wanted' }] : []
}

interface Step {
  readonly rpm: number
  readonly by: number
  /** What it may be off by. */
  readonly off: number
}

/** What `other` has over `reference` at each of its speeds that both have, in shown torque. */
function stepsOf(reference: CurveReport, other: CurveReport, torque: Scale): Step[] {
  const scales = { torque, power: torque }
  const base = torqueOf(reference, scales)
  return torqueOf(other, scales).flatMap(([rpm, value], i): Step[] => {
    const before = valueAt(base, rpm)
    return before === undefined
      ? []
      : [{ rpm, by: value - before, off: value * (other.difference_share[i] ?? 0) }]
  })
}

/** The difference of each from the reference, and what it may be off by as an area around it. */
export function differencesOf(
  reference: Named,
  named: readonly Named[],
  torque: Scale,
): { curves: Curve[]; bands: Band[]; stretches: Stretch[] } {
  const curves: Curve[] = [
    {
      name: reference.name,
      ink: reference.ink,
      points: torqueOf(reference.curve, { torque, power: torque }).map(([rpm]) => [rpm, 0]),
    },
  ]
  const bands: Band[] = []
  named.forEach((each) => {
    if (each === reference) return
    const steps = stepsOf(reference.curve, each.curve, torque)
    const { ink } = each
    const edge = (sign: number): Curve => ({
      name: `${each.name} ${sign > 0 ? 'at most' : 'at least'}`,
      points: steps.map(({ rpm, by, off }) => [rpm, by + sign * off]),
      ink,
      quiet: true,
    })
    bands.push({ between: [curves.length, curves.length + 1], ink })
    curves.push(edge(1), edge(-1), {
      name: each.name,
      points: steps.map(({ rpm, by }) => [rpm, by]),
      ink,
    })
  })
  return { curves, bands, stretches: wantedOf(named) }
}

/** The mean over speeds that need not stand evenly: each counts for what lies nearest to it. */
function meanOver(steps: readonly Step[], of: (step: Step) => number): number {
  const share = steps.map(({ rpm }, i) => {
    const [before, after] = [steps[i - 1]?.rpm ?? rpm, steps[i + 1]?.rpm ?? rpm]
    return steps.length === 1 ? 1 : after - before
  })
  const whole = share.reduce((sum, one) => sum + one, 0)
  return steps.reduce((sum, step, i) => sum + of(step) * (share[i] ?? 0), 0) / whole
}

/** What each has over the reference on average in the band, and from where on that is more than the doubt. */
export function summaryOf(reference: Named, named: readonly Named[], torque: Scale): string {
  const [from = 0, to = 0] = reference.curve.band_rpm
  const sentences = named.flatMap((each): string[] => {
    if (each === reference) return []
    const steps = stepsOf(reference.curve, each.curve, torque).filter(
      ({ rpm }) => rpm > from - 1 && rpm < to + 1,
    )
    if (steps.length === 0) return []
    const mean = (of: (step: Step) => number) => meanOver(steps, of)
    const [by, off] = [mean((step) => step.by), mean((step) => step.off)]
    const word = by < 0 ? 'less' : 'more'
    if (Math.abs(by) <= off) {
      return [
        `${each.name} is within what can be told from ${reference.name} over the band (${by < 0 ? '−' : '+'}${Math.abs(by).toFixed(0)} ± ${off.toFixed(0)} ${torque.unit})`,
      ]
    }
    return [
      `${each.name} makes ${Math.abs(by).toFixed(0)} ${torque.unit} ${word} than ${reference.name} over the band (${(Math.abs(by) - off).toFixed(0)} to ${(Math.abs(by) + off).toFixed(0)})`,
    ]
  })
  return `${sentences.join('; ')}.`
}
