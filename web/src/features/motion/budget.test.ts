import { expect, test } from 'vitest'
import type { TrainReport } from '../../api/client'
import { barsOf } from './budget'

const step = (id: string, lift_mm: number) =>
  ({ id, label: id, lift_mm }) as TrainReport['budget'][number]

test('each bar begins where the last one ended; the first and the last stand on the ground', () => {
  const bars = barsOf([step('lobe', 5), step('nominal', 10), step('taken', 9), step('running', 8)])
  expect(bars.map(({ from, to, sense }) => [from, to, sense])).toEqual([
    [0, 0.5, 'start'],
    [0.5, 1, 'gain'],
    [0.9, 1, 'loss'],
    [0, 0.8, 'end'],
  ])
})

test('a valve that does not open has bars without length', () => {
  expect(
    barsOf([step('lobe', 0), step('running', 0)]).every(({ from, to }) => from === 0 && to === 0),
  ).toBe(true)
})
