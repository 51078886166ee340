import { expect, it } from 'vitest'
import type { FormField } from '../../api/client'
import { eventWords, partsOfEntry, freeId, textOf, valvesOf } from './entries'

const rows = [
  ['1', 'intake', '137 lbf'],
  ['2', 'exhaust', '135 lbf'],
]

function field(path: string, table?: string[][]): FormField {
  return {
    field: path,
    ...(table ? { table: { columns: [], rows: table, most: 64 } } : {}),
  } as unknown as FormField
}

it('gives a new entry a number that none has', () => {
  expect(freeId([])).toBe('v1')
  expect(freeId(['v1', 'v3'])).toBe('v4')
  expect(freeId(['a', 'v3'])).toBe('v4')
  expect(freeId(['a', 'b', 'v4'])).toBe('v5')
})

it('finds what was read of a valve, the last where it was read twice', () => {
  const intake = { cylinder: 1, side: 'intake' } as const
  expect(textOf(rows, intake)).toBe('137 lbf')
  expect(textOf([...rows, ['1', 'intake', '138 lbf']], intake)).toBe('138 lbf')
  expect(textOf(rows, { cylinder: 2, side: 'intake' })).toBe('')
})

it('shows every valve, and those beyond what the engine has', () => {
  expect(valvesOf(2, {})).toHaveLength(4)
  const read = { lash: field('service[0].readings.lash', [['6', 'intake', '0.016 in']]) }
  expect(valvesOf(2, read)).toHaveLength(12)
})

it('parts the fields of an entry', () => {
  const found = partsOfEntry([
    field('service[1].date'),
    field('service[1].changed', []),
    field('service[1].readings.seat_load', rows),
  ])
  expect(found.plain.map((own) => own.field)).toEqual(['service[1].date'])
  expect(found.changed?.field).toBe('service[1].changed')
  expect(found.readings.seat_load?.table?.rows).toBe(rows)
  expect(found.readings.lash).toBeUndefined()
  expect(eventWords('lash_set')).toBe('lash set')
})
