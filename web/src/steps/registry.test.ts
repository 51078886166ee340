import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import type { FormField, LimitReport } from '../api/client'
import { KINDS } from '../features/shelf/kinds'
import { fieldsOf, isHidden } from '../model/groups'
import { STEP_NAMES } from '../model/place'
import { placeOf, stateOf, stepNamed, stepOf, STEPS } from './registry'

/** Every path the published schema knows, with one candidate in view. */
function everyPath(): string[] {
  type Node = { $ref?: string; properties?: Record<string, Node>; type?: string; items?: Node }
  const schema = JSON.parse(readFileSync('../docs/build.schema.json', 'utf8')) as Node & {
    $defs: Record<string, Node>
  }
  const resolve = (node: Node): Node =>
    node.$ref ? (schema.$defs[node.$ref.replace('#/$defs/', '')] ?? {}) : node
  const walk = (node: Node, path: string): string[] => {
    const own = resolve(node)
    if (path.endsWith('profile') || !own.properties) return [path]
    return Object.entries(own.properties)
      .filter(
        ([key]) =>
          key !== 'sources' &&
          !(path.includes('.train.') && (key === 'intake' || key === 'exhaust')),
      )
      .flatMap(([key, child]) =>
        walk(
          key === 'candidates' ? resolve(resolve(child).items ?? {}) : child,
          path === '' ? (key === 'candidates' ? 'candidates[0]' : key) : `${path}.${key}`,
        ),
      )
  }
  return walk(schema, '')
}

test('every field of the document has exactly one place in the work', () => {
  const paths = everyPath()
  expect(paths.length).toBeGreaterThan(100)
  for (const path of paths.filter(
    (p) =>
      !isHidden(p, 0) &&
      p !== 'candidates[0].changes.engine' &&
      p !== 'candidates[0].changes.target',
  )) {
    const field = { field: path } as FormField
    const places = STEPS.flatMap((step) =>
      step.groups
        .filter((group) => fieldsOf(group, [field], 0).length > 0)
        .map((group) => `${step.name}/${group.title}`),
    )
    expect(places, path).toHaveLength(1)
  }
})

test('a path leads to its step, one inside a table or of a whole object too', () => {
  expect(stepOf('engine.intake.pocket.depth', 0)).toBe('engine')
  expect(stepOf('candidates[1].train.spring.points[0][1]', 1)).toBe('spring')
  expect(stepOf('candidates[0].train.rocker.exhaust.ratio', 0)).toBe('rocker')
  expect(stepOf('engine.exhaust.seal_height', 0)).toBe('clearance')
  expect(stepOf('engine.intake.pocket', 0)).toBe('engine')
  expect(placeOf('nowhere', 0)).toBeUndefined()
})

test('a step is as bad as its worst margin', () => {
  const limit = (place: string, verdict: string) => ({ place, verdict }) as LimitReport
  const limits = [
    limit('spring', 'ok'),
    limit('spring', 'tight'),
    limit('lobe', 'unknown'),
    limit('clearance', 'fails'),
  ]
  expect([
    stateOf('spring', limits),
    stateOf('lobe', limits),
    stateOf('clearance', limits),
    stateOf('plan', limits),
  ]).toEqual(['tight', 'unknown', 'fails', undefined])
})

test('every name is one step, and every kind of part has a step it is taken from', () => {
  expect(STEPS.map(({ name }) => name)).toEqual([...STEP_NAMES])
  expect(STEP_NAMES.map((name) => stepNamed(name).name)).toEqual([...STEP_NAMES])
  const reached = STEPS.flatMap(({ shelf }) => shelf)
  expect(KINDS.map(({ kind }) => kind).filter((kind) => !reached.includes(kind))).toEqual([])
})
