import { expect, test } from 'vitest'
import type { ScoreColumn, ScoreReport } from '../../api/client'
import { inOrder, rowsOf, weighed } from './columns'

const column = (id: string, weight: number): ScoreColumn => ({
  id,
  title: id,
  unit: 'N m',
  weight,
  better: 'higher',
  over_rpm: null,
})

test('columns become rows of the document, those it has with their speeds', () => {
  const columns = [column('average_torque', 2), column('money', 1)]
  const asked = [['average torque', '2', '3000 rpm', '6000 rpm']]
  expect(rowsOf(columns, asked)).toEqual([
    ['average_torque', '2', '3000 rpm', '6000 rpm'],
    ['money', '1', '', ''],
  ])
  expect(rowsOf(columns, [])[0]).toEqual(['average_torque', '2', '', ''])
  expect(weighed(rowsOf(columns, asked), 1, '0.5')[1]).toEqual(['money', '0.5', '', ''])
})

test('the best comes first and who ties keeps the order of the document', () => {
  const row = (place: number): ScoreReport['rows'][number] => ({
    candidate: String(place),
    name: '',
    values: [],
    shown: [],
    ranks: [],
    points: place,
    place,
    broken: [],
    costs: { counted_in: 'miles', money_usd: 0 },
  })
  expect(inOrder({ columns: [], rows: [row(2), row(1), row(2), row(4)] })).toEqual([1, 0, 2, 3])
})
