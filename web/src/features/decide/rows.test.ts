import { expect, test } from 'vitest'
import type { Column } from '../../api/client'
import { rowsOf } from './rows'

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
