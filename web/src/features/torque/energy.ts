import { numberIn, percent } from '../../model/figures'
import type { CurveReport, Scale } from '../../api/client'

/** One part of the fuel's heat. */
export interface Part {
  readonly key: string
  readonly name: string
  readonly share: number
}

/** Shares smaller than this are not told. */
const TOLD = 0.0005

/** Where the fuel's heat goes at one speed, work first; they sum to one. Pure. */
export function partsAt(energy: CurveReport['energy'], at: number): Part[] {
  const rows: [string, string, readonly number[]][] = [
    ['brake', 'work at the crank', energy.brake],
    ['friction', 'friction', energy.friction],
    ['blower', 'blower', energy.blower],
    ['pumping', 'gas exchange', energy.pumping],
    ['walls', 'walls and coolant', energy.walls],
    ['exhaust', 'exhaust', energy.exhaust],
    ['unburned', 'unburned', energy.unburned],
  ]
  return rows
    .map(([key, name, shares]) => ({ key, name, share: shares[at] ?? 0 }))
    .filter(({ share }) => Math.abs(share) >= TOLD)
}

/** Friction by its parts at one speed in words; a diesel's is told as a whole. Pure. */
export function frictionAt(
  parts: CurveReport['energy']['friction_by_part'],
  at: number,
  scale: Scale,
): string {
  const rows: [string, readonly number[]][] = [
    ['crank', parts.crank_kpa],
    ['pistons and rods', parts.reciprocating_kpa],
    ['gas on rings', parts.gas_kpa],
    ['valve train', parts.train_kpa],
    ['accessories', parts.accessories_kpa],
    ['whole', parts.whole_kpa],
  ]
  const told = rows.map(([name, kpa]) => ({ name, kpa: kpa[at] ?? 0 })).filter(({ kpa }) => kpa > 0)
  const sum = told.reduce((all, { kpa }) => all + kpa, 0)
  const read = (kpa: number) => numberIn(kpa * 1e3, scale)
  if (told.length === 1) return `${read(sum)} ${scale.unit}`
  const each = told.map(({ name, kpa }) => `${name} ${read(kpa)}`).join(', ')
  return `${read(sum)} ${scale.unit}: ${each}`
}

/** The parts in one sentence, for whoever does not see the bar. Pure. */
export function spokenParts(parts: readonly Part[]): string {
  return parts.map(({ name, share }) => `${name} ${percent(share)}`).join(', ')
}

type Figure = CurveReport['figures'][number]

/** Where a figure stands on a bar that shows its range and a third of it on each side, 0 to 1. Pure. */
export function placeOf({ value, low, high }: Pick<Figure, 'value' | 'low' | 'high'>): number {
  const beyond = (high - low) / 3
  return Math.min(Math.max((value - low + beyond) / (high - low + 2 * beyond), 0), 1)
}
