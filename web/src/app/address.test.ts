import { expect, test } from 'vitest'
import { addressOf, hashOf } from './address'

const NOWHERE = {
  build: undefined,
  step: undefined,
  paper: undefined,
  candidate: undefined,
  focus: undefined,
}

test.each([
  ['/build/3', { ...NOWHERE, build: 3 }],
  ['/build/3/spring', { ...NOWHERE, build: 3, step: 'spring' }],
  ['/build/3/spring/b', { ...NOWHERE, build: 3, step: 'spring', candidate: 'b' }],
  [
    '/build/3/engine/b/engine.bore',
    { ...NOWHERE, build: 3, step: 'engine', candidate: 'b', focus: 'engine.bore' },
  ],
  ['/build/3/sheet/b', { ...NOWHERE, build: 3, paper: 'sheet', candidate: 'b' }],
] as const)('%s is one place, there and back', (hash, address) => {
  expect(addressOf(hash)).toEqual(address)
  expect(hashOf(address)).toBe(hash)
})

test('a path of a table and a name with a slash survive', () => {
  const focus = 'candidates[0].train.spring.points[1][0]'
  const there = { ...NOWHERE, build: 3, step: 'spring', candidate: 'a/b', focus } as const
  expect(addressOf(hashOf(there))).toEqual(there)
})

test.each([
  '',
  '/',
  '/build/x',
  '/build/-3',
  '/elsewhere/3',
  '/build/3/nowhere',
  '/build/%E0%A4%A',
  '/build/99999999999999999',
])('rubbish such as %s leads nowhere in particular', (hash) => {
  expect(addressOf(hash).step).toBeUndefined()
  expect(addressOf(hash).paper).toBeUndefined()
})
