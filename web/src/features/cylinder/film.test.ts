import { expect, test } from 'vitest'
import type { FilmSide } from '../../api/client'
import { frameAt, GAPS, WAVES, waveOf } from './film'
import { coilPath } from './pose'

const film = {
  crank_deg: [600, 604, 608],
  valve_mm: [0, 8, 8],
  tip_mm: [0, 8.2, 8],
  lobe_gap_mm: [0, 0, 0.1],
  cup_gap_mm: [0, 0, 0],
  stem_gap_mm: [0, 0.2, 0],
  coil_mm: [
    [0, 0, 0],
    [2, 4, 6],
    [3, 4, 6],
  ],
} as unknown as FilmSide

test('a film is read between its pictures', () => {
  expect(frameAt(film, 602)).toMatchObject({ valve: 4, tip: 4.1, stemGap: 0.1, coil: [1, 2, 3] })
  expect(frameAt(film, 606).lobeGap).toBeCloseTo(0.05, 9)
})

test('coils that go down evenly make no wave, one that lags stands higher by so many times', () => {
  const even = waveOf(frameAt(film, 604))
  for (const share of [0, 0.25, 0.5, 1]) expect(even(share)).toBeCloseTo(0, 9)
  const lags = waveOf({ ...frameAt(film, 604), coil: [1, 4, 6] })
  expect(lags(0.25)).toBeCloseTo(WAVES, 9)
  expect(lags(0)).toBeCloseTo(0, 9)
  expect(GAPS).toBeGreaterThan(1)
})

test('a wave moves the coils of the drawing and leaves its ends', () => {
  const places = (path: string) =>
    path
      .slice(1)
      .split('L')
      .map((at) => Number(at.split(',')[1]))
  const [seat, retainer] = [
    { x: 0, y: 40 },
    { x: 0, y: 0 },
  ]
  const still = places(coilPath(seat, retainer, 20, 3))
  const waved = places(coilPath(seat, retainer, 20, 3, () => 2))
  expect(waved[0]).toBe(still[0])
  expect(waved.at(-1)).toBe(still.at(-1))
  expect((still[3] ?? 0) - (waved[3] ?? 0)).toBeCloseTo(2, 6)
})
