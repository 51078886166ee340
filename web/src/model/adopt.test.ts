import { expect, test } from 'vitest'
import { heldIn, pretend, rested, sessionOn, SUMMARY } from '../test/pretend'

test('what another device saved takes the place of what is here, unless there are edits of its own', async () => {
  pretend()
  const session = sessionOn({ bore: '4 in' })
  await rested(session)
  await session.adopt({ ...SUMMARY, revision: 4 }, JSON.stringify({ bore: '4.1 in' }))
  expect(heldIn(session.read().history.present).bore).toBe('4.1 in')
  expect(session.read().answer?.document).toBe(session.read().history.present)
  expect([session.read().summary.revision, session.read().history.past]).toEqual([4, []])
  // An older answer that comes late changes nothing.
  await session.adopt({ ...SUMMARY, revision: 4 }, JSON.stringify({ bore: '9 in' }))
  expect(heldIn(session.read().history.present).bore).toBe('4.1 in')
  session.edit({ set: { field: 'bore', text: '4.2 in' } })
  await rested(session)
  await session.adopt({ ...SUMMARY, revision: 5 }, JSON.stringify({ bore: '9 in' }))
  expect(heldIn(session.read().history.present).bore).toBe('4.2 in')
  expect(session.read().summary.revision).toBe(4)
})
