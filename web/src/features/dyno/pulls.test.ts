import { expect, test } from 'vitest'
import type { PullColumn, PullReport, PullsReport } from '../../api/client'
import {
  differenceCurves,
  holdingAnother,
  inAnotherUnit,
  meanCurves,
  nextDrawn,
  takenLive,
  trimmedCurves,
} from './pulls'

const column = (holds: PullColumn['holds'], unit: string): PullColumn => ({
  name: holds,
  written: unit,
  holds,
  unit,
  units: [],
  cells: [],
})

test('a column that holds something takes it from the one that held it', () => {
  const columns = [column('speed', 'rpm'), column('torque', 'lbf ft'), column('nothing', '')]
  expect(holdingAnother(columns, 2, 'torque')).toEqual([
    { holds: 'speed', unit: 'rpm' },
    { holds: 'nothing', unit: '' },
    { holds: 'torque', unit: '' },
  ])
  expect(inAnotherUnit(columns, 1, 'N m')[1]).toEqual({ holds: 'torque', unit: 'N m' })
})

test('what counts is a line in rising speed, what does not are points', () => {
  const pull = {
    speed_rpm: [2100, 2000, 2200, 2200],
    torque_nm: [210, 200, 500, 220],
    points: ['counted', 'counted', 'spike', 'counted'],
  } as Pick<PullReport, 'speed_rpm' | 'torque_nm' | 'points'>
  const [line, left] = trimmedCurves('p', pull, 2, 'one')
  expect(line?.points).toEqual([
    [2000, 100],
    [2100, 105],
    [2200, 110],
  ])
  expect(left).toMatchObject({ dots: true, points: [[2200, 250]] })
  expect(
    trimmedCurves('p', { ...pull, points: ['counted', 'counted', 'counted', 'counted'] }, 2, 'one'),
  ).toHaveLength(1)
})

test('bands stand around means and differences, and real ranges are shaded where one is compared', () => {
  const report = {
    speed_rpm: [2000, 3000],
    rows: [
      { candidate: 'a', name: 'A', torque_nm: [400, 410], doubt_nm: [2, 3] },
      { candidate: 'b', name: 'B', torque_nm: [405, 420], doubt_nm: [null, null] },
    ],
    over_speed: [{ a: 'b', b: 'a', by_nm: [5, 10], together_nm: [6, 4], real_rpm: [[3000, 3000]] }],
  } as unknown as PullsReport
  const means = meanCurves(report, 1)
  expect(means.curves.map(({ name }) => name)).toEqual(['A at most', 'A at least', 'A', 'B'])
  expect(means.curves[0]?.points).toEqual([
    [2000, 402],
    [3000, 413],
  ])
  const apart = differenceCurves(report, 1)
  expect(apart.bands).toEqual([{ between: [1, 2], ink: 'two' }])
  expect(apart.curves[1]?.points[1]).toEqual([3000, 14])
  expect(apart.stretches).toEqual([{ from: 3000, to: 3000, kind: 'wanted' }])
})

test('a pull taken live stands behind those of its day', () => {
  const pulls = [
    { day: '2026-03-09', drawn: 2 },
    { day: '2026-03-09', drawn: 5 },
    { day: '2026-03-10', drawn: 9 },
  ]
  expect(nextDrawn(pulls, '2026-03-09')).toBe(6)
  expect(nextDrawn(pulls, '2026-03-11')).toBe(1)
  expect(takenLive('file', 'b', '2026-03-09', pulls)).toMatchObject({
    take_pulls: { drawn: 6, runs: [0], shared: { candidate: 'b' } },
  })
})
