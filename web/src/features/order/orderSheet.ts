import type { OrderCard, UnitSystem } from '../../api/client'
import { csvOfRows } from '../pictures/export'

/** The order as a sheet of five columns, in the units on screen. Pure. */
export function sheetOf(order: OrderCard, system: UnitSystem): string {
  return csvOfRows([
    ['what', 'side', 'asked', 'to be ground', 'running'],
    ...order.lines.map(({ label, side, asked, ground, running }) => [
      label,
      side,
      asked[system],
      ground?.[system] ?? '',
      running?.[system] ?? '',
    ]),
    ...order.facts.map(({ label, value }) => [label, '', value[system], '', '']),
    ...order.missing.map(({ label }) => [label, '', 'to be given', '', '']),
    ...order.parts.map(({ kind, name, price }) => [kind, '', name, '', price?.[system] ?? '']),
  ])
}
