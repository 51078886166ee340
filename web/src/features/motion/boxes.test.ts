import { expect, test } from 'vitest'
import { boxesOf } from './boxes'

const preload = { inch: '.030 in', metric: '0.76 mm' }

test('places of one cylinder stand in one box', () => {
  const pair = (place: number, cylinder: number, side: 'intake' | 'exhaust') => ({
    place,
    cylinder,
    side,
    pushrod: place,
    shims: 0,
    preload,
  })
  const boxes = boxesOf([pair(1, 1, 'intake'), pair(2, 1, 'exhaust'), pair(3, 2, 'intake')])
  expect(boxes.map((box) => [box.title, box.pairs.length])).toEqual([
    ['Cylinder 1', 2],
    ['Cylinder 2', 1],
  ])
})

test('places that are of no cylinder stand by themselves', () => {
  const boxes = boxesOf(
    [1, 2].map((place) => ({
      place,
      cylinder: null,
      side: null,
      pushrod: 3 - place,
      shims: 1,
      preload,
    })),
  )
  expect(boxes.map((box) => box.title)).toEqual(['Place 1', 'Place 2'])
})
