import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { LimitReport, Remedy } from '../../api/client'
import type { Pretend } from '../../test/pretend'
import { limit, Page, pretend, rested, sessionOn } from '../../test/pretend'
import type { Session } from '../../model/session'
import { Margins } from './Margins'
import { openedMargin } from './opened'

let server: Pretend

beforeEach(() => {
  openedMargin.set(undefined)
  server = pretend()
})

const both = (inch: string, metric: string) => ({ inch, metric })

function remedy(more: Partial<Remedy> = {}): Remedy {
  return {
    changes: [
      {
        field: 'candidates[0].train.spring.installed_height',
        label: 'Installed height',
        from: '1.800 in',
        to: '1.830 in',
      },
    ],
    how: 'shims',
    worsens: [],
    gain: 0.76,
    gain_shown: both('+.030 in', '+.76 mm'),
    verdict: 'ok',
    ...more,
  }
}

async function shown(
  limits: LimitReport[],
  onGoTo: (field: string) => void = () => undefined,
): Promise<Session> {
  server.limits = limits
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <Margins step="spring" onGoTo={onGoTo} />
    </Page>,
  )
  await act(() => rested(session))
  const met = screen.queryByRole('button', { name: /^\d+ met/ })
  if (met) fireEvent.click(met)
  return session
}

const titles = () =>
  screen.getAllByRole('listitem').map((row) => row.querySelector('.margin-title')?.textContent)

test('what fails stands first, unknown is no failure, and what is met can be folded', async () => {
  await shown([
    limit('seal'),
    limit('bind', { verdict: 'fails', margin: -1 }),
    limit('wall', { verdict: 'unknown', margin: null, have: null, shown: null }),
    limit('load', { verdict: 'tight', margin: 0.1 }),
  ])
  expect(titles()[0]).toBe('Bind')
  expect(titles()).toHaveLength(4)
  fireEvent.click(screen.getByRole('button', { name: /^1 met/ }))
  expect(titles()).toEqual(['Bind', 'Load', 'Wall'])
})

test('the margins of the step at hand alone, counted', async () => {
  await shown([
    limit('bind', { verdict: 'fails', margin: -1 }),
    limit('squash', { verdict: 'fails', margin: -1, place: 'clearance' }),
  ])
  expect(titles()).toHaveLength(2)
  fireEvent.click(screen.getByText('this step 1'))
  expect(titles()).toEqual(['Bind'])
})

test('a margin that was opened stays where it is when a remedy meets it', async () => {
  const session = await shown([limit('bind', { verdict: 'tight', margin: 0.1 })])
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  server.limits = [limit('bind')]
  act(() => {
    session.useUnits('metric')
  })
  await act(() => rested(session))
  expect(titles()).toEqual(['Bind'])
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  expect(screen.queryAllByRole('listitem')).toEqual([])
  expect(screen.getByRole('button', { name: /^1 met/ })).toBeDefined()
})

test('a margin reads in the units on screen', async () => {
  const session = await shown([limit('bind')])
  expect(screen.getByRole('button', { name: /^Bind/ }).textContent).toContain(
    'at least .040 in · .079 in+.039 in',
  )
  act(() => {
    session.useUnits('metric')
  })
  await act(() => rested(session))
  expect(screen.getByRole('button', { name: /^Bind/ }).textContent).toContain(
    'at least 1.00 mm · 2.00 mm+1.00 mm',
  )
})

test('what the gas gave is said, and why has the estimate it replaced', async () => {
  await shown([
    limit('load', { computed: true, estimate: both('294 lbf', '1308 N') }),
    limit('vacuum', { computed: true }),
  ])
  const load = screen.getByRole('button', { name: /^Load/ })
  expect(load.textContent).toContain('.079 in, computed')
  fireEvent.click(load)
  expect(screen.getByText(/with the gas as computed; 294 lbf by estimate/)).toBeDefined()
  fireEvent.click(screen.getByRole('button', { name: /^Vacuum/ }))
  expect(screen.queryByText(/by estimate/)).toBeNull()
})

test('both valves are one row: the worse in words, the other a click away', async () => {
  const have = (inch: string, at: number) => ({
    need: both('.060 in', '1.52 mm'),
    have: both(inch, inch),
    margin: both('x', 'x'),
    have_at: at,
    need_at: [0.5],
  })
  await shown([
    limit('seal', {
      side: 'intake',
      title: 'Intake retainer to seal',
      shown: have('.073 in', 0.6),
    }),
    limit('seal', {
      side: 'exhaust',
      title: 'Exhaust retainer to seal',
      verdict: 'tight',
      shown: have('.064 in', 0.52),
      formula: 'of the exhaust',
    }),
  ])
  expect(titles()).toEqual(['Retainer to seal'])
  const row = screen.getByRole('button', { name: /^Retainer to seal/ })
  expect(row.textContent).toContain('at least .060 in · .073, .064 in')
  expect(row.querySelectorAll('.bar-have')).toHaveLength(2)
  fireEvent.click(row)
  expect(screen.getByText('of the exhaust.')).toBeDefined()
  fireEvent.click(screen.getByRole('radio', { name: 'intake, ok' }))
  expect(screen.queryByText('of the exhaust.')).toBeNull()
})

test('a margin without a figure names all that would give it one', async () => {
  await shown([
    limit('wall', {
      verdict: 'unknown',
      have: null,
      margin: null,
      shown: null,
      missing: [
        { field: 'a', label: 'Seal height' },
        { field: 'b', label: 'Guide length' },
      ],
    }),
  ])
  expect(screen.getByRole('button', { name: /^Wall/ }).textContent).toContain(
    'measure seal height, guide length',
  )
})

test('why shows what went into it, the first of it, and the way to each', async () => {
  const onGoTo = vi.fn()
  const inputs = Array.from({ length: 11 }, (_, place) => ({
    field: `engine.${place}`,
    label: `Input ${place}`,
    value: '1 in',
    origin: 'measured' as const,
  }))
  await shown([limit('bind', { inputs, formula: 'height less bind' })], onGoTo)
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  expect(screen.getByText('height less bind.')).toBeDefined()
  const table = screen.getByRole('table', { name: 'What went into it' })
  expect(within(table).getAllByRole('row')).toHaveLength(8)
  fireEvent.click(screen.getByRole('button', { name: 'and 3 more' }))
  expect(within(table).getAllByRole('row')).toHaveLength(11)
  fireEvent.click(within(table).getByRole('button', { name: 'Input 10' }))
  expect(onGoTo).toHaveBeenCalledWith('engine.10')
})

test('a remedy of two changes is one step, and says what it worsens', async () => {
  const pair = remedy({
    changes: [
      remedy().changes[0] ?? { field: '', label: '', from: '', to: '' },
      { field: 'engine.intake.seal_height', label: 'Seal height', from: '.950 in', to: '.930 in' },
    ],
    worsens: [
      {
        id: 'load',
        title: 'Intake contact (Hertz) stress',
        from: 'ok',
        to: 'tight',
        margin: both('+2 ksi', '+14 MPa'),
      },
    ],
  })
  await shown([limit('bind', { verdict: 'fails', margin: -1, remedies: [pair] })])
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  expect(screen.getByText('intake contact (Hertz) stress: ok → tight, +2 ksi left')).toBeDefined()
  fireEvent.click(
    screen.getByRole('button', { name: 'Try Installed height 1.830 in and Seal height .930 in' }),
  )
  await act(() => Promise.resolve())
  expect(server.asked.at(-1)?.edits).toEqual([
    { set: { field: 'candidates[0].train.spring.installed_height', text: '1.830 in' } },
    { set: { field: 'engine.intake.seal_height', text: '.930 in' } },
  ])
})

test('as a candidate of its own a remedy leaves the one in view alone', async () => {
  await shown([limit('bind', { verdict: 'fails', margin: -1, remedies: [remedy()] })])
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  fireEvent.click(
    screen.getByRole('button', { name: 'New candidate with Installed height 1.830 in' }),
  )
  await act(() => Promise.resolve())
  const [duplicate, change] = server.asked.at(-1)?.edits ?? []
  expect(duplicate).toMatchObject({ duplicate: { candidate: 'a' } })
  expect(change).toEqual({
    set: { field: 'candidates[2].train.spring.installed_height', text: '1.830 in' },
  })
})

test('a shop sets its own figure with a reason, or not at all', async () => {
  const session = await shown([limit('bind')])
  fireEvent.click(screen.getByRole('button', { name: /^Bind/ }))
  fireEvent.click(screen.getByRole('button', { name: "set this shop's own figure" }))
  const type = (name: string, text: string) => {
    fireEvent.change(screen.getByRole('textbox', { name }), { target: { value: text } })
    fireEvent.keyDown(screen.getByRole('textbox', { name }), { key: 'Enter' })
  }
  type('At least, with its unit', '.080 in')
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'hold to it' }).disabled).toBe(true)
  type('Reason', 'two seasons without a broken spring')
  fireEvent.click(screen.getByRole('button', { name: 'hold to it' }))
  await act(() => rested(session))
  expect(server.asked.at(-1)?.edits).toEqual([
    {
      rows: {
        field: 'limits',
        rows: [['bind', '', '.080 in', '', 'two seasons without a broken spring']],
      },
    },
  ])
})
