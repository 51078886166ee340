import { expect, test } from 'vitest'
import { scaled } from './axis'
import { readable } from './readable'
import { apart, boundsOf, nearestTo, tableOf, viewOf } from './series'

test('curves over different abscissas share one, with gaps where a curve has no point', () => {
  const curves = [
    { name: 'a', ink: 'plain', points: [[2, 20] as const, [1, 10] as const] },
    { name: 'b', ink: 'plain', points: [[1.5, 7] as const] },
  ] as const
  expect(tableOf(curves)).toEqual([
    [1, 1.5, 2],
    [10, undefined, 20],
    [undefined, 7, undefined],
  ])
})

test.each([
  [
    [210, 260],
    [200, 280],
  ],
  [
    [3, 100],
    [0, 120],
  ],
  [
    [-4, 11],
    [-5, 15],
  ],
  [[], [0, 1]],
])('bounds around %j are round and hold every value: %j', (values, [least, most]) => {
  const [from, to] = scaled(values)
  for (const value of values) {
    expect(from).toBeLessThanOrEqual(value)
    expect(to).toBeGreaterThanOrEqual(value)
  }
  expect(from).toBeGreaterThanOrEqual((least ?? 0) - 20)
  expect(to).toBeLessThanOrEqual((most ?? 0) + 20)
})

test('a flat curve is not stretched to the frame', () => {
  const [from, to] = scaled([400, 401])
  expect(to - from).toBeGreaterThan(60)
})

test('the nearest place is found beside gaps, and figures have no more digits than are read', () => {
  expect(nearestTo(2.4, [1, null, 2, 3])).toBe(2)
  expect([0.0421, 3.14159, 42.42, 412.7].map(readable)).toEqual(['.042', '3.14', '42.4', '413'])
})

test('a curve of one point so far, or bounds the wrong way round, still have an axis', () => {
  expect(apart(1500, 1500)).toEqual([1499.5, 1500.5])
  expect(apart(2, 1)).toEqual([1.5, 2.5])
  expect(boundsOf({ unit: '', from: 0 }, [3, 4])).toEqual([0, expect.any(Number)])
})

test('a chart shows all there is so far, as wide as asked, and what it was zoomed to', () => {
  const axis = { unit: 'deg', from: 0, to: 720 }
  expect(viewOf({ unit: 'rpm' }, [1000, 3000], [1000, 3000])).toEqual([1000, 3000])
  expect(viewOf({ unit: 'rpm' }, [700, 5500], [700, 5500])).toEqual([700, 5500])
  expect(viewOf(axis, [10, 700], [10, 700])).toEqual([0, 720])
  expect(viewOf(axis, [10, 700], [200, 300])).toEqual([200, 300])
})
