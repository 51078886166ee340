import { act, renderHook } from '@testing-library/react'
import { beforeEach, expect, test } from 'vitest'
import { OVERLAP } from './geometry'
import { useStripView } from './useStripView'

beforeEach(() => {
  localStorage.clear()
})

test('each step keeps the height chosen for it, also after the page is left; zoom holds everywhere', () => {
  const view = renderHook(({ step }) => useStripView(step, step === 'events'), {
    initialProps: { step: 'events' },
  })
  expect(view.result.current.tall).toBe(true)
  act(() => {
    view.result.current.onTall()
    view.result.current.zoom.set(OVERLAP)
  })
  expect(view.result.current.tall).toBe(false)
  view.rerender({ step: 'spring' })
  expect(view.result.current.tall).toBe(false)
  act(() => {
    view.result.current.onTall()
  })
  expect(view.result.current.tall).toBe(true)
  expect(view.result.current.zoom.read()).toEqual(OVERLAP)
  const later = renderHook(({ step }) => useStripView(step, step === 'events'), {
    initialProps: { step: 'events' },
  })
  expect(later.result.current.tall).toBe(false)
  later.rerender({ step: 'spring' })
  expect(later.result.current.tall).toBe(true)
  later.rerender({ step: 'lobe' })
  expect(later.result.current.tall).toBe(false)
})

test.each(['rubbish', 'null', '7', '{"events":"no"}'])(
  'what is kept as %s is passed over',
  (kept) => {
    localStorage.setItem('upper-lobe.tall-strip', kept)
    const { result } = renderHook(() => useStripView('events', true))
    expect(result.current.tall).toBe(true)
  },
)
