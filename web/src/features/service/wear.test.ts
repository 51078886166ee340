import { expect, it } from 'vitest'
import type { ServiceReport } from '../../api/client'
import { soonest, wearCurves } from './wear'

type Trend = ServiceReport['trends'][number]

function trend(reached: number | null): Trend {
  return {
    what: 'seat_load',
    reached_at: reached,
    valves: [
      {
        cylinder: 1,
        side: 'intake',
        at: [0, 10],
        read: [600, 580],
        now: 580,
        limit: 540,
        reached_at: reached,
      },
      {
        cylinder: 2,
        side: 'intake',
        at: [0, 10],
        read: [610, 606],
        now: 606,
        limit: 540,
        reached_at: null,
      },
      {
        cylinder: 3,
        side: 'intake',
        at: [0, 10],
        read: [590, 594],
        now: 594,
        limit: 540,
        reached_at: null,
      },
    ],
  } as unknown as Trend
}

it('draws a valve on to its limit, others beside it as their mean', () => {
  const [others, own, line, limit] = wearCurves(trend(30), 'cylinder 1 intake', 10, 2)
  expect(others?.points).toEqual([
    [0, 300],
    [10, 300],
  ])
  expect(own?.points).toEqual([
    [0, 300],
    [10, 290],
  ])
  // Two a unit of use: from 290 at 10 to 270 at 30.
  expect(line?.points).toEqual([
    [0, 300],
    [30, 270],
  ])
  expect(limit?.points.at(-1)).toEqual([30, 270])
})

it('does not draw so far on that readings are a dot', () => {
  expect(wearCurves(trend(900), 'cylinder 1 intake', 10, 1)[2]?.points.at(-1)?.[0]).toBe(40)
  // Without wear the line is level, half as far on again.
  expect(wearCurves(trend(null), 'cylinder 1 intake', 10, 1)[2]?.points).toEqual([
    [0, 580],
    [15, 580],
  ])
  expect(wearCurves(trend(30), 'cylinder 9 intake', 10, 1)).toEqual([])
})

it('shows first what is at its limit first', () => {
  const [late, never] = [trend(50), trend(null)]
  expect(soonest([never, late])).toBe(late)
  expect(soonest([])).toBeUndefined()
})
