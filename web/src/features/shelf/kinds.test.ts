import { expect, test } from 'vitest'
import { KINDS, isOneSided, partField } from './kinds'

test('a part stands where the document has it', () => {
  expect(partField('cam', 1)).toBe('candidates[1].cam.part')
  expect(partField('lobe', 0, 'exhaust')).toBe('candidates[0].cam.exhaust.part')
  expect(partField('spring', 0)).toBe('candidates[0].train.spring.part')
})

test('valves and lobes are of one side', () => {
  expect(KINDS.map(({ kind }) => kind).filter(isOneSided)).toEqual(['lobe', 'valve'])
})
