import { expect, test } from 'vitest'
import { fieldOf, whatIs } from './what'

const lobe = Array.from({ length: 90 }, (_, i) => `${i * 2}, ${Math.sin(i / 30).toFixed(4)}`)

test.each([
  ['all.zip', '', { kind: 'archive' }],
  ['x.json', ' {"format":"upper-lobe.build"}', { kind: 'build' }],
  ['shelf.csv', 'part_kind,name,mass (g)\nvalve,A,110', { kind: 'parts' }],
  ['notes.txt', 'call the machinist\nbefore Friday', { kind: 'unknown' }],
  ['', '', { kind: 'unknown' }],
])('%s is known by its name or its text', (name, text, known) => {
  expect(whatIs(name, text)).toEqual(known)
})

test.each([
  ['lobe.csv', `cam deg,lift (mm)\n${lobe.join('\n')}`, 'intake lobe'],
  ['exhaust.txt', lobe.join('\n'), 'exhaust lobe'],
  ['head.csv', 'lift,cfm\n.1,60\n.2,120', 'intake flow'],
  ['bench exh.csv', '0.1;52\n0.2;101\n0.3;140', 'exhaust flow'],
  ['run3.csv', 'rpm\tlb-ft\n4000\t410\n4500\t420', 'pull'],
  ['unnamed.csv', '4000 410\n4500 420', 'pull'],
])('the columns of %s are taken for what they look like', (name, text, guess) => {
  const found = whatIs(name, text)
  expect(found).toMatchObject({ kind: 'table', guess })
})

test('each kind of table has its place', () => {
  expect([fieldOf('exhaust lobe', 1), fieldOf('intake flow', 1), fieldOf('pull', 1)]).toEqual([
    'candidates[1].cam.exhaust.profile',
    'engine.intake.flow',
    'pull.points',
  ])
})
