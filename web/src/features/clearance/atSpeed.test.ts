import { expect, test } from 'vitest'
import type { AtSpeedSide } from '../../api/client'
import { fallOf, schoolsOf } from './atSpeed'

const term = (id: string, mm: number[]) => ({
  id,
  name: id,
  mm,
  field: null,
  how: 'given',
  is_assumed: false,
})

const side: AtSpeedSide = {
  at_rest_mm: 2,
  minimum_mm: [1.9, 2.15],
  at_deg: [350, 352],
  marks: [],
  terms: [term('stretch', [-0.1, -0.25]), term('lag', [0, 0.4])],
}

test('a gap falls and rises term by term to what is left', () => {
  const falls = fallOf(side, 1)
  expect(falls.map(({ from, to }) => [from, to])).toEqual([
    [2, 1.75],
    [1.75, 2.15],
  ])
  expect(fallOf(side, 0).at(-1)?.to).toBeCloseTo(side.minimum_mm[0] ?? 0)
})

test('one school adds every allowance, the other counts what is given back too', () => {
  expect(schoolsOf(fallOf(side, 1))).toEqual({ added: 1.75, counted: 2.15 })
  expect(schoolsOf([])).toBeUndefined()
})
