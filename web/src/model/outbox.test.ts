import { expect, test, vi } from 'vitest'
import type { Edit, OpenedBuild, Problem } from '../api/client'
import { Refusal } from '../api/client'
import { SUMMARY } from '../test/pretend'
import type { Shelf, Waiting } from './outbox'
import { Outbox } from './outbox'

const edit = (text: string): Edit => ({
  take_reading: { session: 's', table: 'decks', cells: [text] },
})

function refusal(status: number): Refusal {
  const problem: Problem = { type: 'urn:x', title: 'x', status, detail: `refused with ${status}` }
  return new Refusal(problem)
}

function shelf(): Shelf & { all: Map<string, string> } {
  const all = new Map<string, string>()
  return {
    all,
    get length() {
      return all.size
    },
    key: (place) => [...all.keys()][place] ?? null,
    getItem: (key) => all.get(key) ?? null,
    setItem: (key, value) => void all.set(key, value),
    removeItem: (key) => void all.delete(key),
  }
}

/** A server that keeps what arrives, by its key; away as long as it is told so. */
function server() {
  const kept: Waiting[] = []
  const state = { away: false, loses: 0, refuse: new Map<string, number>() }
  const send = vi.fn((waiting: Waiting): Promise<OpenedBuild> => {
    if (state.away) return Promise.reject(refusal(0))
    const text = JSON.stringify(waiting.edits)
    const status = [...state.refuse].find(([part]) => text.includes(part))?.[1]
    if (status !== undefined) return Promise.reject(refusal(status))
    if (!kept.some(({ key }) => key === waiting.key)) kept.push(waiting)
    if (state.loses > 0) {
      state.loses -= 1
      return Promise.reject(refusal(0))
    }
    return Promise.resolve({ summary: SUMMARY, document: '' })
  })
  const read = () => kept.map(({ says }) => says)
  return { state, send, read }
}

const arrived = () => Promise.resolve()

test('what is read while the server is away arrives once, in order, over a reload of the page', async () => {
  const [kept, shop] = [shelf(), server()]
  const first = new Outbox(1, kept, shop.send, arrived)
  expect(await first.put([edit('1')], 'inch', 'one', 1)).toBe('arrived')
  shop.state.away = true
  expect(await first.put([edit('2')], 'inch', 'two', 2)).toBe('waits')
  expect(await first.put([edit('3')], 'inch', 'three', 3)).toBe('waits')
  expect(first.isAway()).toBe(true)
  first.rest()
  // Another page of the same device; the shop's answer to the first is lost on its way.
  shop.state.away = false
  shop.state.loses = 1
  const second = new Outbox(1, kept, shop.send, arrived)
  expect(second.read().map(({ says }) => says)).toEqual(['two', 'three'])
  await second.flush()
  await second.flush()
  second.rest()
  expect(shop.read()).toEqual(['one', 'two', 'three'])
  expect([second.read(), kept.all.size, second.isAway()]).toEqual([[], 0, false])
  // Those of another build are not this one's.
  kept.setItem('upper-lobe.waiting.2.x', JSON.stringify({ key: 'x', edits: [], says: 'other' }))
  kept.setItem('upper-lobe.waiting.1.y', 'rubbish')
  expect(new Outbox(1, kept, shop.send, arrived).read()).toEqual([])
})

test('what the server refuses for what it is stands beside its reason, and holds nothing up', async () => {
  const shop = server()
  const outbox = new Outbox(1, shelf(), shop.send, arrived)
  shop.state.refuse.set('wrong', 422)
  expect(await outbox.put([edit('wrong')], 'inch', 'typed', 1)).toEqual({
    refused: 'refused with 422',
  })
  expect(outbox.read()).toEqual([])
  shop.state.away = true
  await outbox.put([edit('wrong')], 'inch', 'waited', 2)
  await outbox.put([edit('4')], 'inch', 'four', 3)
  shop.state.away = false
  await outbox.flush()
  outbox.rest()
  expect(shop.read()).toEqual(['four'])
  expect(outbox.read().map(({ says, refused }) => [says, refused])).toEqual([
    ['waited', 'refused with 422'],
  ])
  outbox.drop(outbox.read()[0]?.key ?? '')
  expect(outbox.read()).toEqual([])
})

test('a device that is shut out keeps what it has', async () => {
  const shop = server()
  const outbox = new Outbox(1, shelf(), shop.send, arrived)
  for (const status of [401, 409, 429, 503]) {
    shop.state.refuse.set('5', status)
    await outbox.put([edit('5')], 'inch', String(status), status)
  }
  outbox.rest()
  expect(outbox.read().map(({ says }) => says)).toEqual(['401', '409', '429', '503'])
  expect(outbox.read().every(({ refused }) => refused === undefined)).toBe(true)
})

test('a reading waits until what it came to is on screen', async () => {
  const shop = server()
  const onScreen = vi.fn(() => Promise.reject(new Error('no answer')))
  const outbox = new Outbox(1, shelf(), shop.send, onScreen)
  expect(await outbox.put([edit('6')], 'inch', 'six', 1)).toBe('waits')
  onScreen.mockImplementation(() => Promise.reject(new Error('no answer')))
  outbox.rest()
  expect(shop.read()).toEqual(['six'])
})
