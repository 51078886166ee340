import { expect, test } from 'vitest'
import type { CurveReport, PullsReport } from '../../api/client'
import type { Against } from './against'
import { againstCurves, offCurves, offWords } from './against'

const own = (measured: number[]): Against => ({
  row: { name: 'A', torque_nm: measured } as PullsReport['rows'][number],
  curve: { speed_rpm: [2000, 3000, 4000], torque_nm: [400, 500, 450] } as CurveReport,
  ink: 'one',
  speeds: [2500, 3000, 3500, 4500],
})

test('what is measured less what is predicted stands between computed speeds, and nowhere beyond', () => {
  const [, off] = offCurves([own([459, 510, 475, 400])], 1)
  expect(off?.points).toEqual([
    [2500, 9],
    [3000, 10],
    [3500, 0],
  ])
  expect(againstCurves([own([459, 510, 475, 400])], 2)[0]?.points[1]).toEqual([3000, 255])
})

test('how far it is off is said with the speed where it is most', () => {
  const torque = { unit: 'N m', factor: 1, offset: 0, decimals: 0 }
  expect(offWords(own([459, 510, 475, 400]), torque)).toBe(
    'A makes +1.3 % against its prediction; most off at 3000 rpm, by 10 N m.',
  )
})
