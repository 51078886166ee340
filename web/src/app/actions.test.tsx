import { act, fireEvent, render } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { Ways } from '../model/place'
import { heldIn, pretend, rested, sessionOn } from '../test/pretend'
import { STEPS } from '../steps/registry'
import type { Action, Switches } from './actions'
import { actionsOf, helpOf } from './actions'
import { useKeys } from './useKeys'

beforeEach(() => {
  pretend()
})

const switches = (): Switches => ({
  find: vi.fn(),
  help: vi.fn(),
  builds: vi.fn(),
  devices: undefined,
  begin: vi.fn(),
  strip: vi.fn(),
  dark: vi.fn(),
})

function waysTo(goToStep: Ways['goToStep']): Ways {
  return {
    place: { step: 'events', focus: undefined, paper: undefined },
    goToStep,
    goToField: vi.fn(),
    openPaper: vi.fn(),
    openBench: vi.fn(),
    openShelf: vi.fn(),
  }
}

/** A page with a field, a choice, and the keys of some actions. */
function Keyed({ actions }: { actions: readonly Action[] }) {
  useKeys(actions)
  return (
    <>
      <input type="text" aria-label="bore" defaultValue="4 in" />
      <select aria-label="use">
        <option>street</option>
      </select>
    </>
  )
}

const press = (target: Element | Window, key: string, code: string, more: object = {}) =>
  fireEvent.keyDown(target, { key, code, ...more })

test('no two actions share a key, and every step has one that the help tells', () => {
  const actions = actionsOf(sessionOn({}), 'inch', waysTo(vi.fn()), switches())
  const keys = actions.flatMap((action) => action.keys)
  expect(new Set(keys).size).toBe(keys.length)
  expect(actions.filter(({ keys: [key] }) => key?.startsWith('Alt+Digit'))).toHaveLength(10)
  const help = helpOf(actions)
  expect(help.map(([shown]) => shown)).toContain('Alt+1 to Alt+,')
  expect(help.map(([, what]) => what)).toContain('Save')
  expect(help.every(([shown, what]) => shown !== '' && what !== '')).toBe(true)
})

test('the palette lists what can be done by name, and says the units it would turn to', () => {
  const named = (system: 'inch' | 'metric') =>
    actionsOf(sessionOn({}), system, waysTo(vi.fn()), switches())
      .filter(({ listed }) => listed)
      .map(({ title }) => title)
  expect(named('inch')).toContain('Show millimetres')
  expect(named('metric')).toContain('Show inches')
  expect(named('inch')).toContain('Begin a build')
  expect(named('inch')).not.toContain('Next candidate')
})

test('a key of a step goes there from inside a field, in the order of the work', () => {
  const goToStep = vi.fn()
  const actions = actionsOf(sessionOn({}), 'inch', waysTo(goToStep), switches())
  const { getByLabelText } = render(<Keyed actions={actions} />)
  press(getByLabelText('bore'), '1', 'Digit1', { altKey: true })
  press(window, '-', 'Minus', { altKey: true })
  press(window, '=', 'Equal', { altKey: true })
  expect(goToStep.mock.calls.map(([name]) => name as string)).toEqual([
    STEPS[0]?.name,
    STEPS[10]?.name,
    STEPS[11]?.name,
  ])
})

test('a slash finds, but not inside a field or a choice', () => {
  const turned = switches()
  const actions = actionsOf(sessionOn({}), 'inch', waysTo(vi.fn()), turned)
  const { getByLabelText } = render(<Keyed actions={actions} />)
  press(getByLabelText('bore'), '/', 'Slash')
  press(getByLabelText('use'), '/', 'Slash')
  expect(turned.find).not.toHaveBeenCalled()
  press(window, '/', 'Slash')
  press(getByLabelText('bore'), 'k', 'KeyK', { ctrlKey: true })
  expect(turned.find).toHaveBeenCalledTimes(2)
})

test('undo by key waits for a text that is being typed: it has its own', async () => {
  const session = sessionOn({ bore: '4 in' })
  session.edit({ set: { field: 'bore', text: '4.1 in' } })
  await act(() => rested(session))
  const actions = actionsOf(session, 'inch', waysTo(vi.fn()), switches())
  const { getByLabelText } = render(<Keyed actions={actions} />)
  const field = getByLabelText('bore')
  fireEvent.change(field, { target: { value: '4.2' } })
  press(field, 'z', 'KeyZ', { ctrlKey: true })
  await act(() => rested(session))
  expect(heldIn(session.read().history.present).bore).toBe('4.1 in')
  fireEvent.change(field, { target: { value: '4 in' } })
  press(field, 'z', 'KeyZ', { ctrlKey: true })
  await act(() => rested(session))
  expect(heldIn(session.read().history.present).bore).toBe('4 in')
  press(window, 'Z', 'KeyZ', { ctrlKey: true, shiftKey: true })
  await act(() => rested(session))
  expect(heldIn(session.read().history.present).bore).toBe('4.1 in')
})

test('the next candidate and the one before are a key away', async () => {
  const session = sessionOn({ bore: '4 in' })
  await act(() => rested(session))
  render(<Keyed actions={actionsOf(session, 'inch', waysTo(vi.fn()), switches())} />)
  press(window, 'ArrowRight', 'ArrowRight', { altKey: true })
  await act(() => rested(session))
  expect(session.read().candidate).toBe('b')
  press(window, 'ArrowRight', 'ArrowRight', { altKey: true })
  await act(() => rested(session))
  expect(session.read().candidate).toBe('b')
  press(window, 'ArrowLeft', 'ArrowLeft', { altKey: true })
  await act(() => rested(session))
  expect(session.read().candidate).toBe('a')
})
