import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { beforeEach, expect, test, vi } from 'vitest'
import type { BeginningReport, Fault } from '../../api/client'
import { client } from '../../api/client'
import { formField } from '../../test/pretend'
import { BeginDialog } from './BeginDialog'

const FAMILIES = [
  {
    family: 'middle_v8',
    title: 'Middle petrol V8',
    about: 'About 6 litres.',
    uses: ['street', 'marine'],
    heads: ['iron', 'aluminium'],
  },
  {
    family: 'diesel_six',
    title: 'Diesel six',
    about: 'Boosted.',
    uses: ['tow'],
    heads: ['iron'],
  },
]

interface Asked {
  readonly beginning: {
    family: string
    use: string | null
    heads: string | null
    name: string
    known: { field: string; text: string }[]
  }
}

let asked: Asked[] = []
let kept: string[] = []

function fault(field: string): Fault {
  return {
    field,
    label: 'Stroke',
    given: 'x',
    needs: 'a length, 30 mm to 300 mm',
    shown: { inch: 'a length, 1.2 in to 12 in', metric: 'a length, 30 mm to 300 mm' },
  }
}

function report({ beginning }: Asked): BeginningReport {
  const text = (field: string, assumed: string) =>
    beginning.known.find((known) => known.field === field)?.text ?? assumed
  const both = (value: string) => ({ inch: value, metric: value })
  return {
    document: JSON.stringify(beginning),
    asked: [
      {
        field: formField('engine.bore', text('engine.bore', '4.010 in'), { spoken: 'Bore' }),
        range: ['3.900 in', '4.165 in'],
      },
      {
        field: formField('engine.stroke', text('engine.stroke', '3.600 in'), { spoken: 'Stroke' }),
        range: null,
      },
    ],
    because: [
      {
        decision: 'Intake duration',
        value: both('212 deg'),
        why: both('its speed'),
        source: 'practice',
      },
      {
        decision: 'Exhaust duration',
        value: both('220 deg'),
        why: both('its port'),
        source: 'practice',
      },
    ],
  }
}

beforeEach(() => {
  asked = []
  kept = []
  vi.spyOn(client, 'GET').mockImplementation(() => Promise.resolve({ data: FAMILIES }))
  const post = (path: string, { body }: { body: Asked & { document?: string } }) => {
    if (path === '/api/builds') {
      kept.push(body.document ?? '')
      return Promise.resolve({ data: { id: 12, name: 'x', revision: 1, saved_at: '' } })
    }
    if (path === '/api/builds/blank') return Promise.resolve({ data: { id: 13 } })
    asked.push(body)
    if (body.beginning.known.some(({ text }) => text === 'bad')) {
      return Promise.resolve({
        error: {
          title: 'refused',
          detail: 'refused',
          status: 422,
          faults: [fault('engine.stroke')],
        },
      })
    }
    return Promise.resolve({ data: report(body) })
  }
  vi.spyOn(client, 'POST').mockImplementation(post)
})

async function opened() {
  const onOpen = vi.fn()
  const onClose = vi.fn()
  render(
    <QueryClientProvider
      client={new QueryClient({ defaultOptions: { queries: { retry: false } } })}
    >
      <BeginDialog open system="inch" onClose={onClose} onOpen={onOpen} />
    </QueryClientProvider>,
  )
  const bore = await screen.findByLabelText<HTMLInputElement>('Bore')
  return { onOpen, onClose, bore }
}

const begin = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Begin/ })

test('what is assumed stands in the fields, what is typed over it is asked again and begun with', async () => {
  const { onOpen, onClose, bore } = await opened()
  expect(bore.placeholder).toBe('4.010 in')
  expect(begin().disabled).toBe(true)
  fireEvent.change(screen.getByLabelText('Name of the new build'), { target: { value: 'Pier' } })
  fireEvent.change(bore, { target: { value: '4.04' } })
  fireEvent.blur(bore)
  await waitFor(() =>
    expect(asked.at(-1)?.beginning.known).toEqual([{ field: 'engine.bore', text: '4.04' }]),
  )
  await waitFor(() => expect(begin().disabled).toBe(false))
  await act(async () => {
    fireEvent.click(begin())
    await Promise.resolve()
  })
  await waitFor(() => expect(onOpen).toHaveBeenCalledWith(12))
  expect(onClose).toHaveBeenCalledOnce()
  expect(JSON.parse(kept[0] ?? '{}')).toMatchObject({ name: 'Pier', family: 'middle_v8' })
})

test('the family chosen offers its own uses and heads, the likeliest first', async () => {
  await opened()
  const uses = () =>
    within(screen.getByRole('radiogroup', { name: 'Use' }))
      .getAllByRole('radio')
      .map((radio) => radio.textContent)
  expect(uses()).toEqual(['street', 'marine'])
  fireEvent.click(screen.getByRole('radio', { name: 'marine' }))
  await waitFor(() => expect(asked.at(-1)?.beginning.use).toBe('marine'))
  fireEvent.click(screen.getByRole('radio', { name: /^Diesel six/ }))
  await waitFor(() =>
    expect(asked.at(-1)?.beginning).toMatchObject({ family: 'diesel_six', use: null }),
  )
  expect(uses()).toEqual(['tow'])
})

test('a refused text stays at its field with its fault in the units on screen, and nothing begins', async () => {
  await opened()
  fireEvent.change(screen.getByLabelText('Name of the new build'), { target: { value: 'Pier' } })
  const stroke = screen.getByLabelText<HTMLInputElement>('Stroke')
  fireEvent.change(stroke, { target: { value: 'bad' } })
  fireEvent.keyDown(stroke, { key: 'Enter' })
  expect((await screen.findByRole('alert')).textContent).toBe('needs a length, 1.2 in to 12 in')
  expect(screen.getByLabelText<HTMLInputElement>('Stroke').value).toBe('bad')
  expect(begin().disabled).toBe(true)
  fireEvent.change(stroke, { target: { value: '' } })
  fireEvent.blur(stroke)
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull())
  expect(begin().disabled).toBe(false)
})

test('the first cam is said in figures, each with its reason, and an empty build is a click away', async () => {
  const { onOpen } = await opened()
  expect(screen.getByText(/First cam by card rules: 212 \/ 220 deg/)).toBeDefined()
  expect(screen.getByText(/its port/)).toBeDefined()
  fireEvent.change(screen.getByLabelText('Name of the new build'), { target: { value: 'Bare' } })
  fireEvent.click(screen.getByRole('button', { name: /^Empty instead/ }))
  await waitFor(() => expect(onOpen).toHaveBeenCalledWith(13))
})
