import { expect, it } from 'vitest'
import type { OrderCard } from '../../api/client'
import { revisionWords } from '../sheet/useRevision'
import { sheetOf } from './orderSheet'

const both = (inch: string, metric: string) => ({ inch, metric })

const order = {
  build: 'Yard hauler',
  candidate: 'A "even", keel',
  lines: [
    {
      label: 'Lobe lift',
      side: 'intake',
      asked: both('.318 in', '8.08 mm'),
      ground: both('.3195 in', '8.12 mm'),
      running: null,
      delivered: null,
    },
  ],
  facts: [{ label: 'Firing order', value: both('1-8-4', '1-8-4') }],
  missing: [{ field: 'engine.core', label: 'Core' }],
  parts: [{ kind: 'spring', name: 'Beehive', state: 'to_buy', price: null, lead_time: '9 days' }],
} as unknown as OrderCard

it('says what it is of before anything else, and leaves nothing out', () => {
  const rows = sheetOf(order, '3, with edits that are not saved', 'metric').trimEnd().split(/\r?\n/)
  expect(rows).toEqual([
    'what,side,asked,to be ground,running,as it came',
    'Build,,Yard hauler,,,',
    'Candidate,,"A ""even"", keel",,,',
    'Revision,,"3, with edits that are not saved",,,',
    'Lobe lift,intake,8.08 mm,8.12 mm,,',
    'Firing order,,1-8-4,,,',
    'Core,,to be given,,,',
    'spring,,Beehive,to buy,,9 days',
  ])
})

it('is of a revision, or of one with edits', () => {
  expect(revisionWords(3, false)).toBe('3')
  expect(revisionWords(3, true)).toBe('3, with edits that are not saved')
})
