import { Ajv2020 } from 'ajv/dist/2020.js'
import { readdirSync, readFileSync } from 'node:fs'
import { expect, test } from '@playwright/test'

const read = (path: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8'))

test('the published schema is one, takes every demo build and refuses what the core refuses', () => {
  const validate = new Ajv2020({ strict: false }).compile(read('docs/build.schema.json') as object)
  const demo = read('demo/tollgate-388-hauler.json') as { engine: Record<string, unknown> }
  for (const file of readdirSync(new URL('../../demo/', import.meta.url)).filter((file) =>
    file.endsWith('.json'),
  )) {
    expect(validate(read(`demo/${file}`)), `${file}: ${JSON.stringify(validate.errors)}`).toBe(true)
  }
  for (const [field, value] of [
    ['bore', '4.060'],
    ['bore', '4 lbf'],
    ['bore', 4.06],
    ['bohr', '4 in'],
    ['cylinders', 8.5],
    ['layout', 'W16'],
  ] as const) {
    const changed = structuredClone(demo)
    changed.engine[field] = value
    expect(validate(changed), `${field}: ${JSON.stringify(value)}`).toBe(false)
  }
})
