import { expect, test } from 'vitest'
import type { ListedBuild } from '../../api/client'
import { aboutOf, searched } from './listed'

const build = (name: string, more: Partial<ListedBuild>): ListedBuild => ({
  id: 1,
  name,
  revision: 1,
  saved_at: '2026-01-02T03:04:05Z',
  ...more,
})
const pier = build('Pier nine', {
  used_for: 'marine',
  layout: 'V8',
  bore: '4.040 in',
  stroke: '3.75 in',
})
const mill = build('Mill', { bore: '102 mm' })

test('a build is told by what was given of it, and by nothing else', () => {
  expect(aboutOf(pier)).toBe('marine, V8, 4.040 in × 3.75 in')
  expect(aboutOf(mill)).toBe('102 mm')
  expect(aboutOf(build('x', {}))).toBe('')
})

test('builds are found by every word of name, use and size', () => {
  expect(searched([pier, mill], 'marine 4.04')).toEqual([pier])
  expect(searched([pier, mill], 'MILL')).toEqual([mill])
  expect(searched([pier, mill], ' ')).toEqual([pier, mill])
  expect(searched([pier, mill], 'mill 4.04')).toEqual([])
})
