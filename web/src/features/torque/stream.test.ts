import { expect, test } from 'vitest'
import { linesOf } from './stream'

test('a line that has not all come waits for its rest', () => {
  expect(linesOf('{"a":1}\n{"b"')).toEqual({ lines: ['{"a":1}'], rest: '{"b"' })
  expect(linesOf('{"b":2}\n')).toEqual({ lines: ['{"b":2}'], rest: '' })
  expect(linesOf('')).toEqual({ lines: [], rest: '' })
})
