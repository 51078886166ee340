import { expect, test } from 'vitest'
import type { LimitReport, Verdict } from '../../api/client'
import { inOrder, isMet, marginsOf, tallyOf, tightestFirst } from './order'

const limit = (id: string, verdict: Verdict, margin: number, have_at: number): LimitReport => ({
  id,
  title: id,
  verdict,
  margin,
  have: 0,
  need: {},
  sense: 'at_least',
  unit: 'mm',
  place: 'spring',
  school: '',
  source: '',
  formula: '',
  computed: false,
  inputs: [],
  missing: [],
  remedies: [],
  edit_field: '',
  shown: {
    need: { inch: '', metric: '' },
    have: { inch: '', metric: '' },
    margin: { inch: '', metric: '' },
    have_at,
    need_at: [0.5],
  },
})

test('what fails most comes first, what has most room last', () => {
  const order = tightestFirst([
    limit('roomy', 'ok', 5, 0.9),
    limit('near', 'ok', 1, 0.6),
    limit('tight', 'tight', 0.1, 0.51),
    limit('short', 'fails', -1, 0.45),
    limit('far short', 'fails', -9, 0.1),
  ])
  expect(order.map((l) => l.id)).toEqual(['far short', 'short', 'tight', 'near', 'roomy'])
})

test("by place the builder's order holds, and ok can be hidden", () => {
  const at = (id: string, place: string, verdict = 'ok') => ({
    ...limit(id, verdict as Verdict, 1, 0.9),
    place: place as LimitReport['place'],
  })
  const limits = marginsOf([
    at('gap', 'clearance'),
    at('overlap', 'events', 'fails'),
    at('load', 'spring'),
  ])
  expect(inOrder(limits, 'place').map((l) => l.id)).toEqual(['overlap', 'load', 'gap'])
  expect(limits.filter((l) => !isMet(l)).map((l) => l.id)).toEqual(['overlap'])
})

test('a tally names what there is', () => {
  const of = (...verdicts: Verdict[]) =>
    tallyOf(marginsOf(verdicts.map((verdict, place) => limit(String(place), verdict, 1, 0.9))))
  expect(of('fails', 'ok', 'fails', 'unknown')).toBe('2 fail, 1 unknown, 1 ok')
  expect(of('ok')).toBe('1 ok')
})

test('both sides of a rule are one margin, the worse of them its word', () => {
  const sided = (side: 'intake' | 'exhaust', verdict: Verdict) => ({
    ...limit('seal', verdict, 1, 0.6),
    side,
    title: `${side === 'intake' ? 'Intake' : 'Exhaust'} retainer to seal`,
  })
  const [margin, ...rest] = marginsOf([sided('intake', 'ok'), sided('exhaust', 'tight')])
  expect(rest).toEqual([])
  expect(margin?.title).toBe('Retainer to seal')
  expect(margin?.worst.side).toBe('exhaust')
  expect(margin?.limits.map(({ side }) => side)).toEqual(['intake', 'exhaust'])
})

test('what is met and often fails when it is built is not folded away', () => {
  const chance = (any: number) => ({ one: any, any, says: '' })
  const of = (any: number) => marginsOf([{ ...limit('gap', 'ok', 1, 0.9), chance: chance(any) }])
  expect(of(0.54).map(isMet)).toEqual([false])
  expect(of(0.005).map(isMet)).toEqual([true])
})
