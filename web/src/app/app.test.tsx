import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { App as AntApp } from 'antd'
import { beforeEach, expect, test, vi } from 'vitest'
import { client } from '../api/client'
import { WholeArchive } from '../features/builds/WholeArchive'
import { Palette } from '../features/palette/Palette'
import type { Command } from '../features/palette/commands'
import { useSessionPart } from '../model/useSession'
import type { Pretend } from '../test/pretend'
import { heldIn, Page, pretend, rested, sessionOn } from '../test/pretend'
import { Banner } from './Banner'
import { FirstVisit } from './FirstVisit'
import { Guard, LastGuard } from './Guard'

let server: Pretend

beforeEach(() => {
  server = pretend()
})

const set = (text: string) => ({ set: { field: 'bore', text } })

function says(state: { read_only: boolean; troubles: string[] }): void {
  vi.spyOn(client, 'GET').mockImplementation(() =>
    Promise.resolve({ data: { version: '1', ...state } }),
  )
}

/** Breaks while the document says so. */
function Fragile() {
  const bore = useSessionPart((state) => heldIn(state.history.present).bore)
  if (bore === 'breaks it') throw new Error('nothing to draw')
  return <p>drawn with {bore}</p>
}

test('a picture that breaks says so, and the next edit draws it again', async () => {
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <Guard what="The strip">
        <Fragile />
      </Guard>
      <p>the rest</p>
    </Page>,
  )
  await act(() => rested(session))
  act(() => {
    session.edit(set('breaks it'))
  })
  await act(() => rested(session))
  expect(screen.getByRole('alert').textContent).toContain(
    'The strip could not be drawn: nothing to draw. The document is as it was',
  )
  expect(screen.getByText('the rest')).toBeDefined()
  act(() => {
    session.undo()
  })
  await act(() => rested(session))
  expect(screen.getByText('drawn with 4 in')).toBeDefined()
  quiet.mockRestore()
})

test('what breaks outside the bench leaves no white page', () => {
  const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  const Broken = () => {
    throw new Error('everything')
  }
  render(
    <LastGuard>
      <Broken />
    </LastGuard>,
  )
  expect(screen.getByText('The page met something it cannot draw')).toBeDefined()
  expect(screen.getByRole('button', { name: 'Reload' })).toBeDefined()
  quiet.mockRestore()
})

test('a store that may only be read, and damage in it, are said', async () => {
  says({
    read_only: true,
    troubles: ['Tollgate, revision 2 (build 3): its text is not the one that was saved'],
  })
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <Banner onOpen={() => undefined} />
    </Page>,
  )
  await act(() => rested(session))
  expect(screen.getByText(/This database may only be read/)).toBeDefined()
  expect(screen.getByText(/Tollgate, revision 2/)).toBeDefined()
})

test('a build that is gone is kept as a new one, and opened', async () => {
  says({ read_only: false, troubles: [] })
  const session = sessionOn({ bore: '4 in' })
  const onOpen = vi.fn()
  render(
    <Page session={session}>
      <Banner onOpen={onOpen} />
    </Page>,
  )
  session.edit(set('4.1 in'))
  server.refuseSave({ status: 404 })
  session.save()
  await act(() => rested(session))
  fireEvent.click(screen.getByRole('button', { name: 'Keep it as a new build' }))
  await waitFor(() => {
    expect(onOpen).toHaveBeenCalledWith(8)
  })
})

test('edits of before a reload are said, and can be put back', async () => {
  says({ read_only: false, troubles: [] })
  const first = sessionOn({ bore: '4 in' })
  first.edit(set('4.2 in'))
  await rested(first)
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <Banner onOpen={() => undefined} />
    </Page>,
  )
  await act(() => rested(session))
  fireEvent.click(screen.getByRole('button', { name: 'Back to what was saved' }))
  await act(() => rested(session))
  expect(heldIn(session.read().history.present).bore).toBe('4 in')
})

const commands: Command[] = ['Save', 'Intake centreline', 'Seat load'].map((title) => ({
  id: title,
  title,
  kind: 'field',
  run: vi.fn(),
}))

test('the palette is driven by keys alone', () => {
  const onClose = vi.fn()
  render(<Palette open commands={commands} onClose={onClose} />)
  const finder = screen.getByRole('combobox')
  fireEvent.change(finder, { target: { value: 'centerline' } })
  expect(screen.getAllByRole('option').map((option) => option.textContent)).toEqual([
    'Intake centreline field',
  ])
  fireEvent.change(finder, { target: { value: '' } })
  for (const key of ['ArrowDown', 'ArrowDown', 'ArrowDown', 'ArrowUp'])
    fireEvent.keyDown(finder, { key })
  expect(screen.getByRole('option', { selected: true }).textContent).toBe('Intake centreline field')
  fireEvent.keyDown(finder, { key: 'Enter' })
  expect(commands[1]?.run).toHaveBeenCalledOnce()
  expect(onClose).toHaveBeenCalledOnce()
  fireEvent.change(finder, { target: { value: 'zzz' } })
  expect(screen.getByText('Nothing is called that.')).toBeDefined()
  fireEvent.keyDown(finder, { key: 'Enter' })
  expect(onClose).toHaveBeenCalledOnce()
})

test('an archive is sent as the file it is, and a refusal says that nothing was added', async () => {
  const post = vi.spyOn(client, 'POST')
  post.mockImplementation(() =>
    Promise.resolve({ data: { builds: 2, parts_added: 3, parts_changed: 1 } }),
  )
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <AntApp>
        <WholeArchive readOnly={false} />
      </AntApp>
    </Page>,
  )
  const file = new File(['PK'], 'all.zip', { type: 'application/zip' })
  fireEvent.change(screen.getByLabelText('Archive of everything, file'), {
    target: { files: [file] },
  })
  expect(await screen.findByText('2 builds added; 3 parts added, 1 changed')).toBeDefined()
  const asked = (post.mock.calls as unknown[][]).find(([path]) => path === '/api/archive')?.[1] as {
    bodySerializer: () => unknown
  }
  expect(asked.bodySerializer()).toBe(file)
  post.mockImplementation(() =>
    Promise.resolve({
      error: { title: 'refused', detail: 'this is no ZIP archive: nothing was added', status: 422 },
    }),
  )
  fireEvent.change(screen.getByLabelText('Archive of everything, file'), {
    target: { files: [file] },
  })
  await waitFor(() => {
    expect(document.querySelector('.whole-archive [role=alert]')?.textContent).toContain(
      'nothing was added',
    )
  })
  cleanup()
  render(
    <Page session={session}>
      <AntApp>
        <WholeArchive readOnly />
      </AntApp>
    </Page>,
  )
  expect(screen.queryByLabelText('Archive of everything, file')).toBeNull()
  expect(screen.getByRole('link', { name: 'Export everything' })).toBeDefined()
})

test('a first visit says what it shows and how to begin; closed, it stays away', async () => {
  localStorage.removeItem('upper-lobe.visited')
  const session = sessionOn({ bore: '4 in' })
  const onBegin = vi.fn()
  const shown = render(
    <Page session={session}>
      <FirstVisit onBegin={onBegin} />
    </Page>,
  )
  await act(() => rested(session))
  expect(screen.getByText(/invented demo build/)).toBeDefined()
  fireEvent.click(screen.getByRole('button', { name: 'Begin your own' }))
  expect(onBegin).toHaveBeenCalledOnce()
  shown.unmount()
  render(
    <Page session={session}>
      <FirstVisit onBegin={onBegin} />
    </Page>,
  )
  expect(screen.queryByText(/invented demo build/)).toBeNull()
})
