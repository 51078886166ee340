import { expect, test } from 'vitest'
import type { HardwareReport } from '../../api/client'
import { merged } from './useChoose'

const of = (decision: string, now: number) =>
  ({ decision: { decision, now } }) as unknown as HardwareReport

test('what was looked at anew takes the place of what was, in its order, and nothing else goes', () => {
  const last = [of('ratio', 1.6), of('compression', 9.5)]
  const first = [of('ratio', 1.65)]
  expect(merged(last, first)).toEqual([of('ratio', 1.65), of('compression', 9.5)])
  expect(merged([], first)).toEqual(first)
  expect(merged(last, [...first, of('runner', 300)])).toHaveLength(3)
  expect(merged(last, [])).toEqual(last)
})
