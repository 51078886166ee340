import { fireEvent, render, screen } from '@testing-library/react'
import { beforeEach, expect, test, vi } from 'vitest'
import type { DecisionReport } from '../../api/client'
import { SweepPicture } from './SweepPicture'
import { frameOf, xOf } from './sweep'

/** The picture's width where nothing can be measured. */
const WIDTH = 520
const VALUES = [60, 62, 64, 66, 68]

const shown = (value: number) => ({ inch: `${String(value)} deg`, metric: `${String(value)} deg` })
const flat = VALUES.map(() => 0)

function closing(now: number): DecisionReport {
  return {
    decision: 'intake_closes',
    title: 'Intake closing',
    now,
    now_shown: shown(now),
    value: VALUES,
    value_shown: VALUES.map(shown),
    low: flat,
    middle: flat,
    high: flat,
    average_torque: flat,
    proposed: 60,
    proposed_shown: shown(60),
    range: [60, 60],
    broken: [],
  } as unknown as DecisionReport
}

const told = { onAt: vi.fn(), onDrag: vi.fn(), onDrop: vi.fn(), onBack: vi.fn() }

const picture = (live: number, decision = closing(62)) => (
  <SweepPicture decision={decision} system="inch" live={live} at={1} {...told} />
)

const xOfValue = (value: number) => xOf(frameOf(closing(62), WIDTH, 214), value)

beforeEach(() => {
  vi.clearAllMocks()
  HTMLElement.prototype.setPointerCapture = vi.fn()
})

function takeHold() {
  const { rerender } = render(picture(62))
  const handle = screen.getByRole('slider', { name: 'Intake closing' })
  fireEvent.pointerDown(handle, { pointerId: 1, clientX: xOfValue(62) })
  const move = (value: number) => fireEvent.pointerMove(handle, { clientX: xOfValue(value) })
  return { handle, move, rerender }
}

test('what a resting hand lets go is written, though the preview is already there', () => {
  const { handle, move, rerender } = takeHold()
  move(66)
  expect(told.onDrag).toHaveBeenLastCalledWith(3)
  rerender(picture(66))
  fireEvent.pointerUp(handle)
  expect(told.onDrop).toHaveBeenCalledExactlyOnceWith(3)
})

test('curves that come under the hand do not move what it holds', () => {
  const { handle, move, rerender } = takeHold()
  move(66)
  const sharper = {
    ...closing(62),
    value: [58, ...VALUES],
    value_shown: [58, ...VALUES].map(shown),
  }
  rerender(picture(66, sharper))
  expect(handle).toHaveProperty('textContent', '66 deg')
  fireEvent.pointerUp(handle)
  expect(told.onDrop).toHaveBeenCalledExactlyOnceWith(4)
})

test('a hand that comes back, or is interrupted, leaves everything as it was', () => {
  const { handle, move, rerender } = takeHold()
  move(66)
  rerender(picture(66))
  move(62)
  fireEvent.pointerUp(handle)
  expect(told.onDrop).not.toHaveBeenCalled()
  expect(told.onBack).toHaveBeenCalledOnce()
  fireEvent.pointerDown(handle, { pointerId: 1, clientX: xOfValue(62) })
  move(64)
  fireEvent.pointerCancel(handle)
  expect(told.onBack).toHaveBeenCalledTimes(2)
  fireEvent.pointerDown(handle, { pointerId: 1, clientX: xOfValue(62) })
  fireEvent.pointerUp(handle)
  expect(told.onBack).toHaveBeenCalledTimes(2)
  expect(told.onDrop).not.toHaveBeenCalled()
})
