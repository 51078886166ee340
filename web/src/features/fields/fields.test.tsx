import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { FormField } from '../../api/client'
import { PlaceContext } from '../../model/place'
import type { Pretend } from '../../test/pretend'
import { formField, heldIn, Page, pretend, rested, sessionOn } from '../../test/pretend'
import type { Session } from '../../model/session'
import { useSessionPart } from '../../model/useSession'
import { FieldRow } from './FieldRow'
import { Needs } from './Needs'
import { marksOf } from './sources'
import { TableField } from './TableField'

let server: Pretend

beforeEach(() => {
  server = pretend()
})

/** A field as the form shows it: whatever the session's last answer says of it. */
function Shown({ path, more = {} }: { path: string; more?: Partial<FormField> }) {
  const field = useSessionPart((state) => state.answer?.fields?.find((each) => each.field === path))
  if (!field) return null
  return field.table ? (
    <TableField field={field} label={path} />
  ) : (
    <FieldRow field={{ ...field, ...more }} label={path} />
  )
}

async function onScreen(session: Session, ...paths: string[]): Promise<void> {
  render(
    <Page session={session}>
      {paths.map((path) => (
        <Shown key={path} path={path} />
      ))}
    </Page>,
  )
  await act(() => rested(session))
}

const input = (name: string) => screen.getByLabelText<HTMLInputElement>(name)
const held = (session: Session) => heldIn(session.read().history.present)

async function typed(session: Session, name: string, text: string, key = 'Enter'): Promise<void> {
  fireEvent.change(input(name), { target: { value: text } })
  if (key === 'Tab') fireEvent.blur(input(name))
  else fireEvent.keyDown(input(name), { key })
  await act(() => rested(session))
}

test('a text that is wholly selected stays so when an answer changes it', async () => {
  const session = sessionOn({ bore: '4 in' })
  await onScreen(session, 'bore')
  await typed(session, 'bore', '4.06 in')
  input('bore').focus()
  input('bore').select()
  act(() => {
    session.undo()
  })
  await act(() => rested(session))
  expect(input('bore').value).toBe('4 in')
  expect([input('bore').selectionStart, input('bore').selectionEnd]).toEqual([0, 4])
})

test('after an undo the field shows what the document holds', async () => {
  const session = sessionOn({ bore: '4 in' })
  await onScreen(session, 'bore')
  await typed(session, 'bore', '4.06 in', 'Tab')
  expect(input('bore').value).toBe('4.06 in')
  act(() => {
    session.undo()
  })
  await act(() => rested(session))
  expect(input('bore').value).toBe('4 in')
  act(() => {
    session.redo()
  })
  await act(() => rested(session))
  expect(input('bore').value).toBe('4.06 in')
})

test('a refused text stays red until Escape, or until the old good value is typed again', async () => {
  const session = sessionOn({ bore: '4 in', rod: '6 in' })
  await onScreen(session, 'bore', 'rod')
  await typed(session, 'bore', 'bad')
  expect(input('bore').value).toBe('bad')
  expect(input('bore').getAttribute('aria-invalid')).toBe('true')
  expect(screen.getByRole('alert').textContent).toBe('needs a good one')
  await typed(session, 'rod', '6.1 in')
  expect(input('bore').value, 'another edit leaves it standing').toBe('bad')
  fireEvent.keyDown(input('bore'), { key: 'Escape' })
  expect(input('bore').value).toBe('4 in')
  expect(screen.queryByRole('alert')).toBeNull()
  await typed(session, 'bore', 'bad')
  await typed(session, 'bore', '4 in')
  expect(screen.queryByRole('alert')).toBeNull()
  expect(held(session)).toEqual({ bore: '4 in', rod: '6.1 in' })
})

test('Enter and then leaving the field asks once', async () => {
  const session = sessionOn({ bore: '4 in' })
  await onScreen(session, 'bore')
  const before = server.asked.length
  const open = server.hold()
  fireEvent.change(input('bore'), { target: { value: '4.1 in' } })
  fireEvent.keyDown(input('bore'), { key: 'Enter' })
  fireEvent.blur(input('bore'))
  expect(input('bore').value, 'what was typed stands while its answer is awaited').toBe('4.1 in')
  open()
  await act(() => rested(session))
  expect(server.asked.slice(before).filter(({ edits }) => edits.length > 0)).toHaveLength(1)
})

test('what was typed while no answer came is tried again by Enter', async () => {
  const session = sessionOn({ bore: '4 in' })
  await onScreen(session, 'bore')
  await typed(session, 'bore', 'away')
  expect(input('bore').value).toBe('away')
  expect(screen.getByRole('alert').textContent).toContain('Enter tries again')
  const before = server.asked.length
  fireEvent.keyDown(input('bore'), { key: 'Enter' })
  await act(() => rested(session))
  expect(server.asked.length).toBe(before + 1)
})

const points = (count: number): string[][] =>
  Array.from({ length: count }, (_, place) => [`${place}`, `0.${String(100 + place)}`])

test('every row of a table is edited in its own place, and the blank one adds a row', async () => {
  const session = sessionOn({ points: points(30) })
  await onScreen(session, 'points')
  expect(document.querySelectorAll('input')).toHaveLength(2 * 31)
  await typed(session, 'points, row 25, Lift', '0.999')
  const rows = held(session)['points'] as string[][]
  expect(rows).toHaveLength(30)
  expect(
    rows.map((row) => row[1]).filter((lift, place) => lift !== points(30)[place]?.[1]),
  ).toEqual(['0.999'])
  expect(rows[24]).toEqual(['24', '0.999'])
  fireEvent.change(input('points, row 31, Angle'), { target: { value: '30' } })
  await typed(session, 'points, row 31, Lift', '0.131')
  expect((held(session)['points'] as string[][]).at(-1)).toEqual(['30', '0.131'])
  expect(held(session)['points']).toHaveLength(31)
})

test('an emptied row is gone, Escape takes typed cells back, and undo brings rows back', async () => {
  const session = sessionOn({ points: points(3) })
  await onScreen(session, 'points')
  fireEvent.change(input('points, row 2, Angle'), { target: { value: '' } })
  await typed(session, 'points, row 2, Lift', '')
  expect((held(session)['points'] as string[][]).map(([angle]) => angle)).toEqual(['0', '2'])
  await typed(session, 'points, row 1, Lift', '0.5', 'Escape')
  expect(input('points, row 1, Lift').value).toBe('0.100')
  act(() => {
    session.undo()
  })
  await act(() => rested(session))
  expect(input('points, row 2, Lift').value).toBe('0.101')
})

test('a word of a closed list is chosen, and says what the trade says', async () => {
  const session = sessionOn({ school: 'light' })
  render(
    <Page session={session}>
      <Shown path="school" more={{ choices: ['series', 'light', 'flat_tappet'] }} />
    </Page>,
  )
  await act(() => rested(session))
  const list = screen.getByRole('combobox', { name: 'school' })
  expect(
    within(list)
      .getAllByRole('option')
      .map((option) => option.textContent),
  ).toEqual(['not given', 'stock preload', 'light', 'flat tappet'])
  fireEvent.change(list, { target: { value: 'series' } })
  await act(() => rested(session))
  expect(held(session)).toEqual({ school: 'series' })
})

test('where a value comes from is a letter in its field, whose menu changes it', async () => {
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <Shown path="bore" />
      <FieldRow field={formField('stroke', '', { given: false })} label="stroke" />
      <FieldRow
        field={formField('block', 'iron', { given: false, source: 'assumed' })}
        label="block"
      />
      <FieldRow field={formField('lash', '.016 in', { applies: false })} label="lash" />
    </Page>,
  )
  await act(() => rested(session))
  expect(screen.queryByRole('button', { name: /^Source of stroke/ })).toBeNull()
  const block = screen.getByRole('button', { name: 'Source of block: assumed, by default' })
  expect(block.textContent).toBe('a')
  expect(screen.getByTitle('It has no meaning here')).toBeDefined()
  fireEvent.keyDown(input('bore'), { key: 'ArrowDown', altKey: true })
  fireEvent.click(await screen.findByRole('menuitem', { name: 'measured' }))
  await act(() => rested(session))
  expect(server.asked.at(-1)?.edits).toEqual([{ source: { field: 'bore', source: 'measured' } }])
})

test('a whole section is marked at once: what is given, and not a wish', () => {
  const given = formField('engine.bore', '4 in')
  const known = formField('engine.stroke', '3 in', { source: 'measured' })
  const wish = formField('target.shift_at', '6000 rpm')
  const empty = formField('engine.rod_length', '', { given: false })
  expect(marksOf([given, known, wish, empty], 'measured')).toEqual([
    { source: { field: 'engine.bore', source: 'measured' } },
  ])
  expect(marksOf([known], 'unmarked')).toEqual([{ source: { field: 'engine.stroke', source: '' } }])
})

test('all that a picture lacks is said the first time, each with the way to it', async () => {
  const session = sessionOn({ bore: '4 in' })
  const goToField = vi.fn()
  const place = {
    place: { step: 'plan', focus: undefined, paper: undefined },
    goToStep: vi.fn(),
    goToField,
    openPaper: vi.fn(),
    openBench: vi.fn(),
    openShelf: vi.fn(),
  } as const
  const needs = [
    { field: 'engine.rod_length', label: 'Rod length' },
    { field: 'engine.octane_ron', label: 'RON of the fuel' },
  ]
  render(
    <Page session={session}>
      <PlaceContext value={place}>
        <Needs what="Torque is computed" reason="it is not known" needs={needs} />
      </PlaceContext>
    </Page>,
  )
  await act(() => rested(session))
  expect(screen.getByText(/Torque is computed once these are given/).textContent).toBe(
    'Torque is computed once these are given: rod length, RON of the fuel.',
  )
  fireEvent.click(screen.getByRole('button', { name: 'rod length' }))
  expect(goToField).toHaveBeenCalledWith('engine.rod_length')
})
