import { act, fireEvent, render, screen, within } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { CurveReport } from '../../api/client'
import type { Ways } from '../../model/place'
import { PlaceContext } from '../../model/place'
import { Page, pretend, rested, sessionOn } from '../../test/pretend'
import { Ranges } from './Ranges'

type Figure = CurveReport['figures'][number]

const both = (inch: string, metric: string) => ({ inch, metric })

function figure(more: Partial<Figure> = {}): Figure {
  return {
    id: 'filling',
    title: 'Volumetric efficiency at peak power',
    rpm: 5200,
    value: 0.9,
    low: 0.78,
    high: 0.98,
    shown: both('0.90', '0.90'),
    shown_range: [both('0.78', '0.78'), both('0.98', '0.98')],
    odd: false,
    look_at: [],
    ...more,
  }
}

const goToField = vi.fn()
const ways: Ways = {
  place: { step: 'torque', focus: undefined, paper: undefined },
  goToStep: vi.fn(),
  goToField,
  openPaper: vi.fn(),
  openBench: vi.fn(),
  openShelf: vi.fn(),
}

async function shown(figures: Figure[]) {
  const session = sessionOn({ bore: '4 in' })
  render(
    <Page session={session}>
      <PlaceContext.Provider value={ways}>
        <Ranges figures={figures} />
      </PlaceContext.Provider>
    </Page>,
  )
  await act(() => rested(session))
}

beforeEach(() => {
  goToField.mockClear()
  pretend()
})

test('a figure in its range stands in the list, and nothing is odd', async () => {
  await shown([figure()])
  expect(screen.getByText('nothing odd')).toBeTruthy()
  const [row] = screen.getAllByRole('listitem')
  if (!row) throw new Error('no row')
  expect(within(row).getByText('0.78 to 0.98')).toBeTruthy()
  expect(screen.queryByRole('status')).toBeNull()
})

test('an odd figure says so in words and leads to the inputs to blame', async () => {
  await shown([
    figure(),
    figure({
      id: 'friction',
      title: 'Friction at peak power',
      odd: true,
      shown: both('45 psi', '310 kPa'),
      look_at: [{ field: 'engine.main_bearing_diameter', label: 'Main bearing diameter' }],
    }),
  ])
  expect(screen.getByText('1 odd')).toBeTruthy()
  const said = screen.getByRole('status')
  expect(said.textContent).toContain('Friction at peak power is 45 psi')
  fireEvent.click(within(said).getByRole('button', { name: 'main bearing diameter' }))
  expect(goToField).toHaveBeenCalledWith('engine.main_bearing_diameter')
})

test('a draft has no figures to compare, and nothing is shown', async () => {
  await shown([])
  expect(screen.queryByText(/Beside engines/)).toBeNull()
})
