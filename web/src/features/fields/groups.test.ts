import { expect, test } from 'vitest'
import type { FormField } from '../../api/client'
import { grouped } from './groups'

const field = (path: string, label: string): FormField => ({
  field: path, label, help: '', needs: '', text: '', unit_inch: '', unit_metric: '', source: 'unmarked', given: true, choices: [],
})

test('fields stand under the object they belong to, rows by their place', () => {
  const groups = grouped(
    [
      field('engine.bore', 'Bore'),
      field('engine.intake.pocket.depth', 'Depth'),
      field('engine.intake.flow[0][1]', 'Flow table'),
      field('target.shift_at', 'Shift at'),
    ],
    ['engine.'],
  )
  expect(groups.map((g) => [g.title, g.fields.map((f) => f.label)])).toEqual([
    ['', ['Bore']],
    ['Intake, pocket', ['Depth']],
    ['Intake', ['Flow table 1.2']],
  ])
})
