import { expect, test } from 'vitest'
import { tracesOf } from './traces'

test('traces are those of the document, of the first candidate where they name none', () => {
  const document = JSON.stringify({
    candidates: [{ id: 'a' }, { id: 'b' }],
    valve_motion: [
      { id: 'm1', side: 'intake', speed: '3000 rpm', points: [[], []] },
      { id: 'm2', side: 'exhaust', speed: '5 rpm', candidate: 'b', turned_by: 'engine' },
      7,
    ],
  })
  expect(tracesOf(document)).toEqual([
    { id: 'm1', candidate: 'a', side: 'intake', speed: '3000 rpm', turnedBy: 'rig', points: 2 },
    { id: 'm2', candidate: 'b', side: 'exhaust', speed: '5 rpm', turnedBy: 'engine', points: 0 },
  ])
})

test('a document without any has none', () => {
  expect(tracesOf('{}')).toEqual([])
  expect(tracesOf('{ "valve_motion": "odd" }')).toEqual([])
})
