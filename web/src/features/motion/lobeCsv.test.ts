import { expect, test } from 'vitest'
import { lobeCsv } from './lobeCsv'

test('a lobe goes out at whole or half degrees with its units in the heading', () => {
  const lobe = { cam_deg: [-1, -0.5, 0, 0.5, 1], lift_mm: [7.9, 7.98, 8, 7.98, 7.9] }
  expect(lobeCsv(lobe, 1)).toBe('cam deg,lift (mm)\n-1,7.90000\n0,8.00000\n1,7.90000\n')
  expect(lobeCsv(lobe, 0.5).split('\n')).toHaveLength(7)
})
