import { expect, test } from 'vitest'
import type { ShopReport } from '../../api/client'
import { axesOf, byFamily, place } from './shrunk'

const shown = (text: string) => ({ inch: text, metric: text })
const constant = (at: number, width: number) => ({
  label: 'Friction',
  at,
  width,
  value: shown(String(at)),
  doubt: shown(String(width)),
})
const build = (name: string, family: string, alone: number, drawn: number) => ({
  name,
  family,
  points: 9,
  usual_error: 0.05,
  others_error: 0.02,
  own_error: 0.01,
  constants: [{ label: 'Friction', at: [alone, drawn], alone: shown('a'), drawn: shown('b') }],
})
const level = (title: string, at: number, width: number) => ({
  title,
  builds: 1,
  own: false,
  constants: [constant(at, width)],
})
const report: ShopReport = {
  says: '',
  model: '',
  levels: [level('The whole shop', 1, 9), level('A', 1, 0.2), level('B', 1.2, 0.1)],
  builds: [build('one', 'B', 1.5, 1.4), build('two', 'A', 0.7, 0.9)],
}

test('an axis holds every build and what its families expect, not the whole shop’s width', () => {
  const [axis] = axesOf(report)
  expect(axis?.[0]).toBeCloseTo(0.7 - 0.048)
  expect(axis?.[1]).toBeCloseTo(1.5 + 0.048)
  expect(place(1.1, [0.6, 1.6], 100)).toBeCloseTo(50)
})

test('a shop without builds has axes and no rows', () => {
  const empty = { ...report, levels: report.levels.slice(0, 1), builds: [] }
  expect(axesOf(empty)).toEqual([[0, 1]])
  expect(byFamily(empty)).toEqual([])
})

test('builds stand under their families', () => {
  expect(
    byFamily(report).map(({ level, builds }) => [level.title, builds.map((b) => b.name)]),
  ).toEqual([
    ['A', ['two']],
    ['B', ['one']],
  ])
})
