import { expect, test } from 'vitest'
import { pulsesOf } from './firing'

test('pulses of one bank of a V8 are uneven, of half an inline six even', () => {
  const bank = pulsesOf(
    ['1', '5', '6', '3', '4', '2', '7', '8'],
    [
      ['1', '3', '5', '7'],
      ['2', '4', '6', '8'],
    ],
  )
  expect(bank[0]?.intervals).toEqual([90, 180, 270, 180])
  const half = pulsesOf(
    ['1', '5', '3', '6', '2', '4'],
    [
      ['1', '2', '3'],
      ['4', '5', '6'],
    ],
  )
  expect(half.map((lane) => lane.intervals)).toEqual([
    [240, 240, 240],
    [240, 240, 240],
  ])
})

test('without collectors there is one lane', () => {
  expect(pulsesOf(['1', '2'], []).map((lane) => lane.name)).toEqual(['all'])
})
