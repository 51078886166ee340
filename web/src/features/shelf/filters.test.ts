import { expect, test } from 'vitest'
import type { ShelfPart } from '../../api/client'
import { chosenOf, foundIn, valuesOf } from './filters'

const cam = (name: string, fields: Record<string, string>): ShelfPart => ({
  part: { kind: 'cam', name, fields: fields as Record<string, never> },
  figures: [{ label: 'Lobe lift', text: '0.318 in', telling: true }],
})
const roller = cam('Roller', { ground_for: 'roller', bearing_diameter: '2.140 in' })
const flat = cam('Flat', { ground_for: 'flat', bearing_diameter: '1.950 in' })
const bare = cam('Bare', {})

test('there is to choose what the parts say, and nothing that none does', () => {
  expect(valuesOf([roller, flat, bare, flat], 'ground_for')).toEqual(['flat', 'roller'])
  expect(valuesOf([bare], 'bearing_diameter')).toEqual([])
})

test('chosen values leave their parts, an emptied choice all of them', () => {
  expect(chosenOf([roller, flat, bare], { ground_for: 'flat' })).toEqual([flat])
  expect(chosenOf([roller, flat], { ground_for: 'flat', bearing_diameter: '2.140 in' })).toEqual([])
  expect(chosenOf([roller, flat], { ground_for: '' })).toEqual([roller, flat])
})

test('words are looked for in name and figures alike', () => {
  expect(foundIn([roller, flat], 'roller .318')).toEqual([roller])
  expect(foundIn([roller, flat], '')).toHaveLength(2)
})
