import { expect, test } from 'vitest'
import { onCurve, scrub } from './scrub'
import { readLength } from './figures'

test('the angle folds into the cycle', () => {
  scrub.to(-10)
  expect(scrub.read()).toBe(710)
  scrub.to(731.26)
  expect(scrub.read()).toBe(11.3)
})

test('a curve is read between its points', () => {
  expect(onCurve([0, 10, 30], 1.5)).toBe(20)
  expect(onCurve([0, 10, 30], 2)).toBe(30)
})

test('lengths are read as spoken', () => {
  expect(readLength(2.49, { unit: 'in', factor: 0.0254, decimals: 3, offset: 0 })).toBe('.098 in')
  expect(readLength(-0.001, { unit: 'in', factor: 0.0254, decimals: 3, offset: 0 })).toBe('.000 in')
  expect(readLength(2.49, { unit: 'mm', factor: 0.001, decimals: 2, offset: 0 })).toBe('2.49 mm')
})
