import { expect, test } from 'vitest'
import { prefixesOf, stepOf } from './steps'

test('a field leads to the step that changes it', () => {
  expect(stepOf('engine.intake.pocket.depth', 0)).toBe('engine')
  expect(stepOf('candidates[1].train.spring.installed_height', 1)).toBe('spring')
  expect(stepOf('candidates[1].cam.lobe_separation', 1)).toBe('events')
  expect(stepOf('candidates[1].cam.intake.lobe_lift', 1)).toBe('lobe')
  expect(stepOf('target.shift_at', 0)).toBe('plan')
})

test('paths are those of the candidate in view', () => {
  expect(prefixesOf('rocker', 2)).toEqual(['candidates[2].train.rocker.'])
})
