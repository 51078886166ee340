import { expect, test } from 'vitest'
import type { Column } from '../../api/client'
import { earlier, inWantedOrder, rowsOf, themesOf } from './rows'

const column = (id: string, readings: [string, string][], limits: object[] = []) =>
  ({
    id,
    name: id,
    readings: readings.map(([r, inch]) => ({ id: r, label: r, shown: { inch, metric: '' } })),
    limits,
  }) as unknown as Column

test('candidates stand side by side, what one lacks is unknown, what differs is marked', () => {
  const rows = rowsOf(
    [
      column(
        'a',
        [
          ['lift', '.5'],
          ['load_intake', '350'],
        ],
        [{ id: 'load', side: 'intake', verdict: 'tight' }],
      ),
      column('b', [['lift', '.5']]),
    ],
    'inch',
  )
  expect(rows.map((r) => [r.id, r.differs, r.cells.map((c) => c.text)])).toEqual([
    ['lift', false, ['.5', '.5']],
    ['load_intake', true, ['350', 'unknown']],
  ])
  expect(rows[1]?.cells[0]?.verdict).toBe('tight')
})

test('idle and life are told by the worst of what bears on them', () => {
  const limit = (id: string, verdict: string, have: string) =>
    ({ id, side: null, title: id, verdict, shown: { have: { inch: have, metric: have } } }) as never
  const column = (limits: never[]) => ({ id: 'a', readings: [], limits }) as unknown as Column
  const rows = themesOf(
    [
      column([limit('idle_overlap', 'ok', '4 deg'), limit('guide_pressure', 'tight', '90 psi')]),
      column([limit('idle_vacuum', 'fails', '9 inHg'), limit('idle_overlap', 'ok', '8 deg')]),
    ],
    'inch',
  )
  expect(rows.map(({ label, cells }) => [label, ...cells.map(({ text }) => text)])).toEqual([
    ['Idle', 'Idle_overlap 4 deg', 'Idle_vacuum 9 inHg'],
    ['Life', 'Guide_pressure 90 psi', 'unknown'],
  ])
  expect(themesOf([column([])], 'inch')).toEqual([])
})

test('columns stand as they were put, a new one last', () => {
  const all = ['a', 'b', 'c'].map((id) => ({ id }))
  const order = earlier(['a', 'b'], 'b')
  expect(order).toEqual(['b', 'a'])
  expect(inWantedOrder(all, order).map(({ id }) => id)).toEqual(['b', 'a', 'c'])
  expect(earlier(order, 'b')).toEqual(order)
})
