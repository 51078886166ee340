import type { OrderCard, UnitSystem } from '../../api/client'
import { spoken } from '../fields/labels'
import { csvOfRows } from '../pictures/export'

/** The order as a sheet of six columns, in the units on screen: what it is of comes first. Pure. */
export function sheetOf(order: OrderCard, revision: string, system: UnitSystem): string {
  return csvOfRows([
    ['what', 'side', 'asked', 'to be ground', 'running', 'as it came'],
    ...[
      ['Build', order.build],
      ['Candidate', order.candidate],
      ['Revision', revision],
    ].map(([label, text]) => [label ?? '', '', text ?? '', '', '', '']),
    ...order.lines.map(({ label, side, asked, ground, running, delivered }) => [
      label,
      side,
      asked[system],
      ground?.[system] ?? '',
      running?.[system] ?? '',
      delivered?.[system] ?? '',
    ]),
    ...order.facts.map(({ label, value }) => [label, '', value[system], '', '', '']),
    ...order.missing.map(({ label }) => [label, '', 'to be given', '', '', '']),
    ...order.parts.map(({ kind, name, state, price, lead_time }) => [
      kind,
      '',
      name,
      spoken(state),
      price?.[system] ?? '',
      lead_time ?? '',
    ]),
  ])
}
