import { expect, test } from 'vitest'
import { csvOf, csvOfColumns } from './export'

test('curves of different lengths stand in columns of their own', () => {
  const csv = csvOf('in', 'cfm', [
    {
      name: 'in',
      points: [
        [0.1, 66],
        [0.2, 134],
      ],
    },
    { name: 'reverse, worn', points: [[0.1, 60]] },
  ])
  expect(csv).toBe(
    'in at (in),in (cfm),"reverse, worn at (in)","reverse, worn (cfm)"\r\n0.1,66,0.1,60\r\n0.2,134,,\r\n',
  )
})

test('what is not known is no column', () => {
  expect(
    csvOfColumns([
      { name: 'crank (deg)', values: [0, 1] },
      { name: 'gap (mm)', values: null },
      { name: 'lift (mm)', values: [0, 0.1 + 0.2] },
    ]),
  ).toBe('crank (deg),lift (mm)\r\n0,0\r\n1,0.3\r\n')
})
