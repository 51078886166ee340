import { expect, test } from 'vitest'
import { copyName, freeId, pathFor, remedyName } from './ids'

test('a new candidate takes the first free letter, then numbers', () => {
  expect(freeId(['a', 'c'])).toBe('b')
  expect(freeId(['c1', ...Array.from({ length: 26 }, (_, i) => String.fromCharCode(97 + i))])).toBe(
    'c2',
  )
})

test('a copy is named by what makes it another', () => {
  expect(copyName('A even keel', 'Aluminium stud roller 1.65')).toBe(
    'A: Aluminium stud roller 1.65',
  )
  expect(copyName('A even keel', 'x'.repeat(90))).toHaveLength(60)
})

test('a remedy names its candidate by what it changes', () => {
  expect(remedyName('B later closing', 'Pocket, depth', '0.125 in')).toBe(
    'B: pocket, depth 0.125 in',
  )
  expect(remedyName('x', 'y'.repeat(90), '1').length).toBe(60)
})

test('a change for one candidate alone goes into its own changes', () => {
  expect(pathFor('engine.gasket_thickness', 0, 2)).toBe(
    'candidates[2].changes.engine.gasket_thickness',
  )
  expect(pathFor('candidates[0].train.rocker.ratio', 0, 2)).toBe('candidates[2].train.rocker.ratio')
  expect(pathFor('candidates[0].changes.engine.bore', 0, 1)).toBe(
    'candidates[1].changes.engine.bore',
  )
})
