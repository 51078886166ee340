import { expect, test } from 'vitest'
import type { FormField } from '../../api/client'
import { candidatePath, labelIn, labelOf, ownPath, readsAlike } from './labels'

const field = (path: string, label: string, sided = false): FormField => ({
  field: path,
  label,
  spoken: label,
  help: '',
  needs: { inch: '', metric: '' },
  text: '',
  unit_inch: '',
  unit_metric: '',
  source: 'unmarked',
  given: true,
  choices: [],
  sided,
  applies: true,
})

test('a label says whose it is where the group does not', () => {
  expect(labelOf(field('engine.intake.pocket.depth', 'Depth'))).toBe('Pocket depth')
  expect(labelOf(field('engine.bore', 'Bore'))).toBe('Bore')
  expect(labelOf(field('candidates[0].train.valve.exhaust.mass', 'Mass', true))).toBe(
    'Mass, exhaust',
  )
  expect(labelOf(field('engine.intake.valve_diameter', 'Valve diameter'))).toBe('Valve diameter')
})

test('two fields of one name in a group say their side', () => {
  const [one, two] = [
    field('engine.intake.seal_height', 'Seal height'),
    field('engine.exhaust.seal_height', 'Seal height'),
  ]
  expect([labelIn(one, [one, two]), labelIn(two, [one, two]), labelIn(one, [one])]).toEqual([
    'Seal height, intake',
    'Seal height, exhaust',
    'Seal height',
  ])
})

test('what candidates share can be one candidate\u2019s own', () => {
  expect(candidatePath('engine.intake.flow', 2)).toBe('candidates[2].changes.engine.intake.flow')
  expect(candidatePath('candidates[0].train.rocker.ratio', 0)).toBeUndefined()
  expect(candidatePath('name', 0)).toBeUndefined()
})

test('a second reading is shown only where it says more', () => {
  expect(readsAlike('0.318 in', '.318 in')).toBe(true)
  expect(readsAlike('15 deg', '15.0 deg')).toBe(true)
  expect(readsAlike('11/32 in', '.344 in')).toBe(false)
  expect(readsAlike('46 mm', '1.811 in')).toBe(false)
})

test('a field of both sides can be given one of its own for a side, once', () => {
  expect(ownPath(field('candidates[1].train.rocker.ratio', 'Ratio', true), 'exhaust')).toBe(
    'candidates[1].train.rocker.exhaust.ratio',
  )
  expect(
    ownPath(field('candidates[1].train.rocker.exhaust.ratio', 'Ratio', true), 'exhaust'),
  ).toBeUndefined()
  expect(ownPath(field('engine.bore', 'Bore'), 'exhaust')).toBeUndefined()
})
