import { expect, test } from 'vitest'
import { filled, isPaste, withCell } from './rows'

test('typing below the last row makes a new one and changes no other', () => {
  const rows = [['.1 in', '60 cfm']]
  expect(withCell(rows, 1, 1, '120', 2)).toEqual([
    ['.1 in', '60 cfm'],
    ['', '120'],
  ])
  expect(withCell(rows, 0, 1, '61', 2)).toEqual([['.1 in', '61']])
  expect(rows).toEqual([['.1 in', '60 cfm']])
})

test('empty rows are nothing', () => {
  expect(
    filled([
      ['', ' '],
      ['1', ''],
    ]),
  ).toEqual([['1', '']])
})

test('a word is typed, lines and columns are a paste', () => {
  expect(isPaste('.250 in')).toBe(false)
  expect(isPaste('.250 in\n')).toBe(false)
  expect(isPaste('.1\t60')).toBe(true)
  expect(isPaste('.1 60\n.2 120')).toBe(true)
  expect(isPaste('0,1;60')).toBe(true)
})
