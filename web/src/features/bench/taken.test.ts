import { expect, test } from 'vitest'
import type { BenchFinding } from '../../api/client'
import { takenFrom } from './taken'

const finding = (change: Partial<BenchFinding>): BenchFinding => ({
  field: 'engine.intake.face_recess',
  label: 'Face recess',
  from: 'valve height',
  says: { inch: '.118 in', metric: '3.00 mm' },
  doubt: { inch: '.002 in', metric: '0.05 mm' },
  now: null,
  verdict: 'new',
  surest: true,
  how: { inch: '', metric: '' },
  needs: [],
  ...change,
})

test('what is taken over is written in the units on screen and marked measured', () => {
  expect(takenFrom([finding({})], 'metric')).toEqual([
    { set: { field: 'engine.intake.face_recess', text: '3.00 mm' } },
    { source: { field: 'engine.intake.face_recess', source: 'measured' } },
  ])
})

test('nothing is taken of what agrees, of the less sure of two, or of a reading that says nothing', () => {
  const none = [
    finding({ verdict: 'agrees' }),
    finding({ surest: false, verdict: 'differs' }),
    finding({ verdict: 'unclear', says: null }),
  ]
  expect(takenFrom(none, 'inch')).toEqual([])
})
