import { expect, it } from 'vitest'
import { isSameBut } from './useAsked'

const fitted = (friction: number, bore: string) =>
  JSON.stringify({ name: 'Hauler', calibration: { friction }, engine: { bore } })

it('grows no older by what it puts into the document itself, and older by anything else', () => {
  const without = JSON.stringify({ name: 'Hauler', engine: { bore: '4.06 in' } })
  expect(isSameBut('calibration', without, fitted(1.1, '4.06 in'))).toBe(true)
  expect(isSameBut('calibration', fitted(1.0, '4.06 in'), fitted(1.1, '4.06 in'))).toBe(true)
  expect(isSameBut('calibration', without, fitted(1.1, '4.07 in'))).toBe(false)
  expect(isSameBut('train_fit', without, fitted(1.1, '4.06 in'))).toBe(false)
})

it('takes an object that is put in between for what it is', () => {
  const before = '{"name":"Hauler","engine":{}}'
  expect(isSameBut('calibration', before, '{"engine":{},"calibration":{},"name":"Hauler"}')).toBe(
    true,
  )
})
