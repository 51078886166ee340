import { expect, it } from 'vitest'
import type { FormField } from '../api/client'
import { fieldsOfEntry } from './groups'

const field = (path: string, text = '') => ({ field: path, text }) as FormField
const all = [
  field('service[1].id', 'v2'),
  field('service[1].date', '2026-05-10'),
  field('service[11].date', '2026-05-11'),
  field('pulls[0].id', 'v2'),
  field('pulls[0].date', '2026-06-01'),
]

it('finds the fields of an entry, and none while those of another are there', () => {
  const paths = (...of: ['service' | 'pulls' | 'bench', string]) =>
    fieldsOfEntry(all, ...of).map(({ field }) => field)
  expect(paths('service', 'v2')).toEqual(['service[1].date'])
  expect(paths('pulls', 'v2')).toEqual(['pulls[0].date'])
  expect(paths('service', 'v3')).toEqual([])
  expect(paths('bench', 'v2')).toEqual([])
})
