import { expect, test } from 'vitest'
import type { Frame } from './geometry'
import { yOf } from './geometry'
import { paintCurves, paintGround, trace } from './paint'
import type { Ink } from './paint'
import { rangeOf } from './traces'

const frame: Frame = {
  width: 820,
  height: 240,
  left: 50,
  right: 50,
  top: 20,
  bottom: 20,
  from: 0,
  to: 720,
  depth: 20,
}

/** A pen that writes down what it is told. */
function pen() {
  const told: string[] = []
  const handler: ProxyHandler<object> = {
    get:
      (_, name) =>
      (...rest: unknown[]) => {
        told.push(`${String(name)} ${rest.map(String).join(',')}`)
      },
    set: () => true,
  }
  return { told, pen: new Proxy({}, handler) as CanvasRenderingContext2D }
}

test('a curve is drawn from its first visible degree to its last, a point for two pixels', () => {
  const { told, pen: own } = pen()
  const curve = Array.from({ length: 721 }, (_, deg) => deg / 36)
  const ends = trace(own, frame, curve, (mm) => yOf(frame, mm))
  expect(ends).toEqual([50, 770])
  expect(told[0]).toBe('moveTo 50,20')
  expect(told.at(-1)).toBe('lineTo 770,220')
  expect(told.length).toBeGreaterThan(320)
  expect(told.length).toBeLessThan(480)
})

test('zoomed, only the visible degrees are drawn', () => {
  const { told, pen: own } = pen()
  trace(
    own,
    { ...frame, from: 300, to: 420 },
    Array.from({ length: 721 }, () => 1),
    (mm) => mm,
  )
  expect(told).toHaveLength(121)
})

test('what hangs below the frame is held at its edge, axes speak the unit on screen', () => {
  const flat = Array.from({ length: 721 }, () => 99)
  const drawn = pen()
  const ground = pen()
  const curves = { intake: flat, exhaust: flat, crown: flat, crownOfExhaust: undefined }
  paintCurves(drawn.pen, frame, {} as Ink, curves)
  paintGround(ground.pen, frame, {} as Ink, { name: 'in', mm: 25.4 }, undefined)
  const depths = drawn.told
    .filter((t) => t.startsWith('lineTo'))
    .map((t) => Number(t.split(',')[1]))
  expect(Math.max(...depths)).toBeLessThanOrEqual(220.5)
  expect(ground.told).toContainEqual(expect.stringMatching(/^fillText \.2,/))
})

test('curves have no words: a worker has not the font', () => {
  const flat = Array.from({ length: 721 }, () => 5)
  const { told, pen: own } = pen()
  const curves = { intake: flat, exhaust: flat, crown: flat, crownOfExhaust: undefined }
  paintCurves(own, frame, {} as Ink, curves)
  expect(told.filter((t) => t.startsWith('fillText'))).toEqual([])
  expect(told.filter((t) => t.startsWith('stroke')).length).toBeGreaterThan(2)
})

test('running lift is a line of its own, and said so, only where it is known', () => {
  const flat = Array.from({ length: 721 }, () => 5)
  const strokes = (running: number[] | undefined) => {
    const { told, pen: own } = pen()
    paintCurves(own, frame, {} as Ink, {
      intake: flat,
      exhaust: flat,
      intakeRunning: running,
      exhaustRunning: running,
      crown: flat,
      crownOfExhaust: undefined,
    })
    return told.filter((t) => t.startsWith('stroke')).length
  }
  expect(strokes(flat) - strokes(undefined)).toBe(2)
  const said = (thin: string | undefined) => {
    const { told, pen: own } = pen()
    paintGround(own, frame, {} as Ink, { name: 'mm', mm: 1 }, thin)
    return told.some((t) => t.includes('running lift'))
  }
  expect([said(undefined), said('running lift')]).toEqual([false, true])
})

test('a trace keeps zero in sight and a wide one is cut at its most', () => {
  expect(rangeOf([[1, 4], null], undefined)).toEqual({ least: 0, most: 4 })
  expect(
    rangeOf(
      [
        [-2, 1],
        [0, 0],
      ],
      undefined,
    ),
  ).toEqual({ least: -2, most: 2 })
  expect(rangeOf([[5, 90], undefined], 20)).toEqual({ least: 0, most: 20 })
})
