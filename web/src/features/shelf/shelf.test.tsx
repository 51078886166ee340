import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { App as AntApp } from 'antd'
import { beforeEach, expect, test, vi } from 'vitest'
import type { FitReport, LimitReport, ShelfPart } from '../../api/client'
import { client } from '../../api/client'
import { Page, pretend, rested, sessionOn } from '../../test/pretend'
import type { Session } from '../../model/session'
import { PartFit } from './PartFit'

const ENTRY: ShelfPart = {
  part: { kind: 'spring', name: 'Beehive 140', fields: {}, price: '150 USD' },
  figures: [{ label: 'Form', text: 'beehive', telling: true }],
}

type Margin = FitReport['margins'][number]
const margin = (
  title: string,
  before: LimitReport['verdict'],
  after: LimitReport['verdict'],
  why?: string,
): Margin => ({
  id: title,
  title,
  before: { inch: '+.060 in', metric: '+1.52 mm' },
  after: { inch: '-.010 in', metric: '-.25 mm' },
  verdict_before: before,
  verdict_after: after,
  ...(why ? { why } : {}),
})

let report: FitReport
let removed: unknown[]

beforeEach(() => {
  pretend()
  report = { verdict: 'fits', changes: [], drags: [], margins: [] }
  removed = []
  const real = vi.mocked(client.POST).getMockImplementation() as unknown as (
    path: string,
    options: unknown,
  ) => Promise<unknown>
  vi.mocked(client.POST).mockImplementation((path: string, options: unknown) =>
    path === '/api/parts/fit' ? Promise.resolve({ data: report }) : real(path, options),
  )
  vi.spyOn(client, 'DELETE').mockImplementation(
    (_: string, options: { params: { query: unknown } }) => {
      removed.push(options.params.query)
      return Promise.resolve({ response: new Response(null, { status: 204 }) })
    },
  )
})

async function tried(
  readOnly = false,
): Promise<{ session: Session; onUsed: () => void; onBack: () => void }> {
  const session = sessionOn({ bore: '4 in' })
  const [onUsed, onBack] = [vi.fn(), vi.fn()]
  render(
    <Page session={session}>
      <AntApp>
        <PartFit entry={ENTRY} readOnly={readOnly} onBack={onBack} onUsed={onUsed} />
      </AntApp>
    </Page>,
  )
  await act(() => rested(session))
  return { session, onUsed, onBack }
}

const verdict = () => document.querySelector('.fit-verdict')?.textContent

test('the verdict names what fails with the part, by its own capitals', async () => {
  report = {
    ...report,
    verdict: 'loses_margin',
    margins: [
      margin('Intake contact (Hertz) stress', 'ok', 'fails'),
      margin('Intake seat load', 'fails', 'fails'),
      margin('Piston to head', 'ok', 'tight'),
    ],
  }
  await tried()
  expect(verdict()).toBe('Fits, but intake contact (Hertz) stress fails with it')
  expect(screen.getByRole('row', { name: /^Piston to head/ }).textContent).toContain('ok → tight')
  expect(screen.getByRole('row', { name: /^Intake seat load/ }).textContent).toMatch(/fails$/)
})

test('what never goes together says why and is used only with open eyes', async () => {
  report = {
    ...report,
    verdict: 'incompatible',
    margins: [
      margin('Intake lifter on this cam', 'ok', 'fails', 'a roller runs on one edge and skids'),
    ],
  }
  await tried()
  expect(verdict()).toBe('Never goes together with what is there')
  expect(screen.getByText('a roller runs on one edge and skids')).toBeDefined()
  expect(screen.getByRole('button', { name: 'Use it all the same' })).toBeDefined()
})

test('a part goes into the candidate in view, on the side chosen, or into a copy', async () => {
  const { session, onUsed } = await tried()
  expect(verdict()).toBe('Fits, with the work below')
  fireEvent.click(screen.getByText('exhaust', { exact: true }))
  await act(() => rested(session))
  fireEvent.click(screen.getByRole('button', { name: 'Use in this candidate' }))
  await act(() => rested(session))
  const edits = vi
    .mocked(client.POST)
    .mock.calls.map(
      (call) => (call as unknown as [string, { body: { edits?: unknown[] } }])[1].body.edits ?? [],
    )
    .filter((made) => made.length > 0)
  expect(edits.at(-1)).toEqual([
    { use_part: { candidate: 'a', part: ENTRY.part, side: 'exhaust' } },
  ])
  expect(onUsed).toHaveBeenCalledOnce()
  fireEvent.click(screen.getByRole('button', { name: 'Use in a copy' }))
  await act(() => rested(session))
  const last = vi
    .mocked(client.POST)
    .mock.calls.map(
      (call) => (call as unknown as [string, { body: { edits?: object[] } }])[1].body.edits ?? [],
    )
    .filter((made) => made.length > 0)
    .at(-1)
  expect(last?.map((edit) => Object.keys(edit)[0])).toEqual(['duplicate', 'use_part'])
})

test('removing a part asks first, and Keep keeps it', async () => {
  const { onBack } = await tried()
  const asking = () => document.querySelector<HTMLButtonElement>('.part-actions .ant-btn-dangerous')
  fireEvent.click(asking() ?? document.body)
  expect(await screen.findByText('Remove Beehive 140 from the shelf?')).toBeDefined()
  expect(removed).toEqual([])
  fireEvent.click(screen.getByRole('button', { name: 'Keep' }))
  expect(removed).toEqual([])
  fireEvent.click(asking() ?? document.body)
  const yes = await waitFor(() => {
    const found = [
      ...document.querySelectorAll<HTMLButtonElement>('.ant-popconfirm-buttons button'),
    ].find((button) => button.textContent === 'Remove')
    if (!found) throw new Error('not asked')
    return found
  })
  fireEvent.click(yes)
  await waitFor(() => {
    expect(onBack).toHaveBeenCalledOnce()
  })
  expect(removed).toEqual([{ kind: 'spring', name: 'Beehive 140' }])
})

test('where nothing can be saved nothing can be removed', async () => {
  await tried(true)
  expect(screen.queryByRole('button', { name: 'Remove' })).toBeNull()
})
