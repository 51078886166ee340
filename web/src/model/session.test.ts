import { beforeEach, expect, test, vi } from 'vitest'
import type { Pretend } from '../test/pretend'
import { heldIn, pretend, rested, sessionOn, SUMMARY } from '../test/pretend'
import { Session } from './session'

let server: Pretend

beforeEach(() => {
  server = pretend()
})

const set = (field: string, text: string) => ({ set: { field, text } })
const held = (session: Session) => heldIn(session.read().history.present)

async function opened(): Promise<Session> {
  const session = sessionOn({ bore: '4 in', rod: '6 in' })
  await rested(session)
  return session
}

test('what is typed is the document, and undo and redo walk it', async () => {
  const session = await opened()
  await session.type('bore', '4.1', set('bore', '4.1'))
  expect(held(session)).toEqual({ bore: '4.1', rod: '6 in' })
  session.undo()
  await rested(session)
  expect(held(session).bore).toBe('4 in')
  expect(session.read().answer?.fields?.find((field) => field.field === 'bore')?.text).toBe('4 in')
  session.redo()
  await rested(session)
  expect(held(session).bore).toBe('4.1')
})

test('a refused text stands with its fault until it is taken back or something good is typed', async () => {
  const session = await opened()
  await session.type('bore', 'bad', set('bore', 'bad'))
  expect(held(session).bore).toBe('4 in')
  expect(session.read().refusals['bore']).toMatchObject({
    typed: 'bad',
    faults: [{ field: 'bore' }],
  })
  session.forget('bore')
  expect(session.read().refusals).toEqual({})
  await session.type('bore', 'bad', set('bore', 'bad'))
  await session.type('bore', '4.2', set('bore', '4.2'))
  expect(session.read().refusals).toEqual({})
  expect(held(session).bore).toBe('4.2')
})

test('two refused fields are marked both, and each ends by itself', async () => {
  const session = await opened()
  await session.type('bore', 'bad', set('bore', 'bad'))
  await session.type('rod', 'bad', set('rod', 'bad'))
  expect(Object.keys(session.read().refusals)).toEqual(['bore', 'rod'])
  await session.type('bore', '4.3', set('bore', '4.3'))
  expect(Object.keys(session.read().refusals)).toEqual(['rod'])
})

test('undo, redo and another candidate take what was refused from the screen', async () => {
  const session = await opened()
  await session.type('rod', '6.1', set('rod', '6.1'))
  for (const step of [
    () => {
      session.undo()
    },
    () => {
      session.redo()
    },
    () => {
      session.choose('b')
    },
  ]) {
    await session.type('bore', 'bad', set('bore', 'bad'))
    expect(session.read().refusals['bore']).toBeDefined()
    step()
    await rested(session)
    expect(session.read().refusals).toEqual({})
  }
})

test('without an answer the text stays, it is said, and the next edit works', async () => {
  const session = await opened()
  await session.type('bore', 'away', set('bore', 'away'))
  expect(session.read().refusals['bore']).toEqual({ typed: 'away', faults: [] })
  expect(session.read().trouble).toBeDefined()
  await session.type('rod', '6.2', set('rod', '6.2'))
  expect(held(session).rod).toBe('6.2')
  expect(session.read().trouble).toBeUndefined()
})

test('an answer nobody can read and a listener that throws stop nothing', async () => {
  const session = await opened()
  const complain = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  await session.type('bore', 'broken', set('bore', 'broken'))
  const off = session.subscribe(() => {
    throw new Error('a screen broke')
  })
  session.edit(set('bore', '4.4'))
  await rested(session)
  off()
  await session.type('rod', '6.3', set('rod', '6.3'))
  session.undo()
  await rested(session)
  await session.type('rod', '6.4', set('rod', '6.4'))
  expect(held(session).rod).toBe('6.4')
  complain.mockRestore()
})

test('of the previews of a drag only the last that waits is asked for, and the edit after them is made', async () => {
  const session = await opened()
  const before = server.asked.length
  const open = server.hold()
  for (const deg of ['1', '2', '3', '4', '5']) session.preview(set('bore', deg))
  session.edit(set('bore', '9'))
  open()
  await rested(session)
  const texts = server.asked
    .slice(before)
    .map(({ edits: [edit] }) => (edit && 'set' in edit ? edit.set.text : ''))
  expect(texts).toEqual(['1', '9'])
  expect(held(session).bore).toBe('9')
})

test('a preview leaves the document alone and asks for less than an edit', async () => {
  const session = await opened()
  session.preview(set('bore', '5'))
  await rested(session)
  expect(held(session).bore).toBe('4 in')
  const [preview] = server.asked.slice(-1)
  expect(preview?.form).toBe(false)
  expect(preview?.parts).not.toContain('remedies')
})

test('figures follow a drag when the hand rests, and never after the edit is made', async () => {
  const session = await opened()
  vi.useFakeTimers()
  const rest = () => vi.advanceTimersByTimeAsync(500)
  try {
    const before = server.asked.length
    session.preview(set('bore', '5'))
    await vi.advanceTimersByTimeAsync(50)
    session.preview(set('bore', '6'))
    await rest()
    const asked = server.asked.slice(before)
    expect(asked.map(({ parts }) => parts.includes('limits'))).toEqual([false, false, true])
    session.preview(set('bore', '7'))
    session.edit(set('bore', '7'))
    await rest()
    const last = server.asked.at(-1)
    expect(last?.form).toBe(true)
    expect(held(session).bore).toBe('7')
  } finally {
    vi.useRealTimers()
  }
})

test('a save names the revision it stands on, and the next one the new revision', async () => {
  const session = await opened()
  session.save()
  await rested(session)
  expect(server.saved).toEqual([])
  session.edit(set('bore', '4.5'))
  session.save()
  session.edit(set('bore', '4.6'))
  session.save()
  await rested(session)
  expect(server.saved.map(({ base, document }) => [base, heldIn(document).bore])).toEqual([
    [3, '4.5'],
    [4, '4.6'],
  ])
  expect(session.read().summary.revision).toBe(5)
})

test('a stale save waits for a decision, and a merge goes on top of the newest', async () => {
  const session = await opened()
  session.edit(set('bore', '4.7'))
  server.refuseSave({ status: 409, newest_revision: 6 })
  session.save()
  await rested(session)
  expect(session.read().staleAgainst).toBe(6)
  session.saveOver({ ...SUMMARY, revision: 6 }, JSON.stringify({ bore: '4.7', rod: '7 in' }))
  await rested(session)
  expect(server.saved).toHaveLength(1)
  expect(server.saved[0]?.base).toBe(6)
  expect(session.read().staleAgainst).toBeUndefined()
  expect(held(session)).toEqual({ bore: '4.7', rod: '7 in' })
})

test('a build that is gone is said, and can be kept as a new one', async () => {
  const session = await opened()
  session.edit(set('bore', '4.8'))
  server.refuseSave({ status: 404 })
  session.save()
  await rested(session)
  expect(session.read().gone).toBe(true)
  expect(await session.saveAsNew()).toBe(8)
  expect(session.read().gone).toBe(false)
  expect(session.read().summary.id).toBe(8)
})

test('unsaved edits come back after a reload and end with a save', async () => {
  const session = await opened()
  session.edit(set('bore', '4.9'))
  await rested(session)
  const again = sessionOn({ bore: '4 in', rod: '6 in' })
  expect(again.read().recovered).toBe(true)
  expect(held(again).bore).toBe('4.9')
  again.undo()
  await rested(again)
  expect(held(again).bore).toBe('4 in')
  again.redo()
  again.save()
  await rested(again)
  expect(sessionOn({ bore: '4.9', rod: '6 in' }).read().recovered).toBe(false)
})

test('where the browser keeps nothing the page says that a reload would lose it', async () => {
  const denied = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  const session = await opened()
  expect(session.read().draftKept).toBe(true)
  session.edit(set('bore', '5.1'))
  await rested(session)
  expect(session.read().draftKept).toBe(false)
  denied.mockRestore()
  session.edit(set('bore', '5.2'))
  await rested(session)
  expect(session.read().draftKept).toBe(true)
})

test('what moved is told against what stood before, never against another candidate', async () => {
  const session = await opened()
  session.edit(set('bore', '5.3'))
  await rested(session)
  expect(session.read().moved.map((line) => line.id)).toEqual(['bore'])
  session.choose('b')
  await rested(session)
  expect(session.read().moved).toEqual([])
})

test('several edits are one step of undo, all or none', async () => {
  const session = await opened()
  session.edits([set('bore', '5.4'), set('rod', '6.5')])
  await rested(session)
  expect(held(session)).toEqual({ bore: '5.4', rod: '6.5' })
  session.undo()
  await rested(session)
  expect(held(session)).toEqual({ bore: '4 in', rod: '6 in' })
  session.edits([set('bore', '5.5'), set('rod', 'bad')])
  await rested(session)
  expect(held(session)).toEqual({ bore: '4 in', rod: '6 in' })
  expect(session.read().faults.map((fault) => fault.field)).toEqual(['rod'])
})

test('who chooses again while an answer is on its way sees the last one chosen, and no edit is lost', async () => {
  const session = sessionOn({ bore: '4 in' })
  await rested(session)
  const open = server.hold()
  session.edit(set('bore', '4.1 in'))
  session.choose('b')
  session.choose('a')
  session.choose('b')
  open()
  await rested(session, 30)
  expect(session.read().candidate).toBe('b')
  expect(session.read().answer?.candidate_index).toBe(1)
  expect(heldIn(session.read().history.present).bore).toBe('4.1 in')
})
