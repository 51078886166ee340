import { expect, test } from 'vitest'
import type { CurveReport } from '../../api/client'
import type { Named } from './curves'
import { inkOf } from '../charts/series'
import { differencesOf, overlaidOf, summaryOf } from './curves'

const scale = { unit: 'lbf ft', factor: 1, offset: 0, decimals: 0 }

function named(name: string, place: number, torque: number[], share = 0.01): Named {
  const speed = [2000, 3000, 4000]
  const curve = {
    speed_rpm: speed,
    band_rpm: [2000, 4000],
    torque_nm: torque,
    power_kw: torque,
    difference_share: speed.map(() => share),
  } as unknown as CurveReport
  return { id: name, name, curve, ink: inkOf(place) }
}

const a = named('A', 0, [400, 420, 380])
const b = named('B', 1, [390, 440, 420])

test('each candidate has torque and power in an ink of its own over the band', () => {
  const { curves, stretches } = overlaidOf([a, b], { torque: scale, power: scale })
  expect(curves.map(({ name }) => name)).toEqual(['A', 'A, power', 'B', 'B, power'])
  expect(new Set(curves.map(({ ink }) => ink)).size).toBe(2)
  expect(stretches).toEqual([{ from: 2000, to: 4000, kind: 'wanted' }])
})

test('a difference stands at its speeds, and what it may be off by on both sides of it', () => {
  const { curves, bands } = differencesOf(a, [a, b], scale)
  const [upper = 0, lower = 0] = bands[0]?.between ?? []
  expect(curves.find(({ name }) => name === 'B')?.points).toEqual([
    [2000, -10],
    [3000, 20],
    [4000, 40],
  ])
  expect(curves[upper]?.points[1]?.[1]).toBeCloseTo(24.4, 9)
  expect(curves[lower]?.points[1]?.[1]).toBeCloseTo(15.6, 9)
})

test('more is only said where it is more than the doubt', () => {
  // (-10 + 2 x 20 + 40) / 4 = 17.5 over the band, off by (3.9 + 2 x 4.4 + 4.2) / 4 = 4.2.
  expect(summaryOf(a, [a, b], scale)).toBe(
    'B makes 18 lbf ft more than A over the band (13 to 22).',
  )
  // Two speeds close together count no more than one.
  const dense = (curve: Named): Named => ({
    ...curve,
    curve: {
      ...curve.curve,
      speed_rpm: [2000, 3000, 3990, 4000],
      torque_nm: [...curve.curve.torque_nm.slice(0, 2), 420, curve.curve.torque_nm[2] ?? 0],
      difference_share: [0.01, 0.01, 0.01, 0.01],
    },
  })
  expect(summaryOf(a, [a, dense(b)], scale)).toMatch(/^B makes 1[78] lbf ft more/)
  const near = named('C', 2, [401, 421, 381])
  expect(summaryOf(a, [a, near], scale)).toBe(
    'C is within what can be told from A over the band (+1 ± 4 lbf ft).',
  )
})
