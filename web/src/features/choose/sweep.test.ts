import { expect, test } from 'vitest'
import type { DecisionReport } from '../../api/client'
import { apart, editsOf, frameOf, percent, placeAt, roundShares, xOf, yOf } from './sweep'

const both = (text: string) => ({ inch: text, metric: `${text}, metric` })

function decision(part: Partial<DecisionReport> = {}): DecisionReport {
  const value = [50, 52, 54, 56, 58]
  return {
    decision: 'intake_closes',
    title: 'Intake closing',
    unit: 'deg',
    now: 54,
    now_shown: both('54.0 deg ABDC'),
    value,
    value_shown: value.map((each) => both(`${String(each)}.0 deg ABDC`)),
    low: [0.02, 0.01, 0, -0.01, -0.02],
    middle: [0, 0, 0, 0, 0],
    high: [-0.04, -0.02, 0, 0.01, 0.01],
    average_torque: [0, 0, 0, 0, 0],
    power_wanted: [0, 0, 0, 0, 0],
    reserves: [],
    broken: [],
    proposed: 56,
    proposed_shown: both('56.0 deg ABDC'),
    range: [54, 58],
    range_shown: [both('54.0 deg ABDC'), both('58.0 deg ABDC')],
    why: both('because'),
    ...part,
  }
}

test('a picture holds every line and its places lead back to their values', () => {
  const own = decision()
  const frame = frameOf(own, 600, 200)
  expect(yOf(frame, 0.02)).toBeGreaterThan(20)
  expect(yOf(frame, -0.04)).toBeLessThan(200 - 30)
  own.value.forEach((value, place) => {
    expect(placeAt(frame, own.value, xOf(frame, value) + 3)).toBe(place)
  })
  expect(placeAt(frame, own.value, -500)).toBe(0)
  expect(placeAt(frame, own.value, xOf(frame, 57.2))).toBe(4)
  const shares = roundShares(frame)
  expect(shares.length).toBeGreaterThan(2)
  expect(shares.some((share) => Math.abs(share) < 1e-9)).toBe(true)
})

test('words that would lie on each other are moved apart and keep their order', () => {
  expect(apart([50, 52, 20], 13)).toEqual([50, 63, 20])
  expect(apart([10, 40, 80], 13)).toEqual([10, 40, 80])
})

test('a share is read with its sign, and nothing is plain nothing', () => {
  expect([percent(0.0123), percent(-0.004, 2), percent(0.0001)]).toEqual([
    '+1.2 %',
    '−0.40 %',
    '0 %',
  ])
})

test('an event or a number of the card is typed as quoted, a lift as it reads in the units of the screen', () => {
  const at = { candidate: 'b', index: 1, system: 'inch' as const, fields: [] }
  expect(editsOf(decision(), 3, at)).toEqual([
    {
      type_event: { candidate: 'b', event: 'intake_closes', text: '56 deg' },
    },
  ])
  const card = decision({ decision: 'lobe_separation', value: [109, 109.5] })
  expect(editsOf(card, 1, at)).toEqual([
    { type_card: { candidate: 'b', number: 'lobe_separation', text: '109.5 deg' } },
  ])
  const lift = decision({ decision: 'exhaust_lift', value_shown: [both('.330 in')] })
  expect(editsOf(lift, 0, at)).toEqual([
    {
      set: { field: 'candidates[1].cam.exhaust.lobe_lift', text: '.330 in' },
    },
  ])
  expect(editsOf(decision(), 9, at)).toEqual([])
  const fields = ['intake', 'exhaust'].map((side) => ({
    field: `candidates[1].train.rocker.${side}.ratio`,
    text: ['1.50', '1.55', '1.60', '1.65', '1.70'],
  }))
  expect(editsOf(decision({ decision: 'ratio' }), 1, { ...at, fields })).toEqual([
    { set: { field: 'candidates[1].train.rocker.intake.ratio', text: '1.55' } },
    { set: { field: 'candidates[1].train.rocker.exhaust.ratio', text: '1.55' } },
  ])
  expect(editsOf(decision({ decision: 'ratio' }), 1, at)).toEqual([])
})
