import { act, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Picture } from './picture'

// The page's fonts are not of this test.
vi.mock('../../model/useLook', () => ({ useLook: () => 'light' }))

const picture: Picture = {
  kind: 'trace',
  frame: {
    width: 400,
    height: 60,
    left: 8,
    right: 8,
    top: 4,
    bottom: 4,
    from: 0,
    to: 720,
    depth: 12,
  },
  curves: [[0, 1, 0], null],
  range: { least: 0, most: 1 },
}

/** A worker that keeps what it is told. */
class Kept extends EventTarget {
  static readonly all: Kept[] = []
  readonly told: Record<string, unknown>[] = []
  constructor() {
    super()
    Kept.all.push(this)
  }
  postMessage(message: Record<string, unknown>) {
    this.told.push(message)
  }
}

beforeEach(() => {
  Kept.all.length = 0
  vi.resetModules()
  vi.stubGlobal('Worker', Kept)
  vi.stubGlobal('OffscreenCanvas', Kept)
  HTMLCanvasElement.prototype.transferControlToOffscreen = () => ({}) as OffscreenCanvas
})
afterEach(() => vi.unstubAllGlobals())

const layer = async () => (await import('./Layer')).Layer

test('a picture is given to the worker with its sheet, and the sheet is let go with it', async () => {
  const Layer = await layer()
  const shown = render(<Layer picture={picture} label="gap" />)
  const [worker] = Kept.all
  expect(worker?.told.map((told) => Object.keys(told))).toEqual([
    ['id', 'sheet'],
    ['id', 'picture', 'dense', 'ink'],
  ])
  shown.rerender(<Layer picture={{ ...picture, range: { least: 0, most: 2 } }} label="gap" />)
  expect(worker?.told[2]).toMatchObject({ picture: { range: { most: 2 } } })
  shown.unmount()
  expect(worker?.told.at(-1)).toMatchObject({ gone: true })
})

test('where the worker cannot be had the page draws, now and later', async () => {
  const Layer = await layer()
  render(<Layer picture={picture} label="gap" />)
  expect(screen.getByRole('img', { name: 'gap' }).tagName).toBe('DIV')
  act(() => void Kept.all[0]?.dispatchEvent(new Event('error')))
  expect(screen.getByRole('img', { name: 'gap' }).tagName).toBe('CANVAS')
  render(<Layer picture={picture} label="another" />)
  expect(screen.getByRole('img', { name: 'another' }).tagName).toBe('CANVAS')
})

test('on paper it is drawn at once', async () => {
  const Layer = await layer()
  render(<Layer picture={picture} label="gap" atOnce />)
  expect(screen.getByRole('img', { name: 'gap' }).tagName).toBe('CANVAS')
})
