import { DEMO, expect, step, test } from './screen'

/** The demo as a build that was on the dyno: friction alone explains what was off, so many spreads of it. */
function pulled(name: string, spreads: number): string {
  const squares = 144 * spreads * spreads + 9
  const curvature = [1, 0, 0, 0, 144, 0, 0, 1, 0, 1]
  return JSON.stringify({
    ...(JSON.parse(DEMO) as Record<string, unknown>),
    name,
    calibration: {
      friction: 1 + 0.2 * spreads,
      remaining: 0.01,
      from: '2000 rpm',
      to: '5600 rpm',
      by: 'pull',
      information: [9, squares, 0, -144 * spreads, 0, 0, ...curvature],
    },
  })
}

test('a build that was never pulled takes what the shop’s others foretell, and can forget it', async ({
  bench,
  request,
}) => {
  for (const [name, spreads] of [
    ['Shop one', 0.9],
    ['Shop two', 1],
    ['Shop three', 1.1],
  ] as const) {
    await request.post('/api/builds', { data: { document: pulled(name, spreads) } })
  }
  await step(bench, 'Dyno')
  const dyno = bench.getByRole('region', { name: 'On the dyno' })
  await dyno.getByText('The shop', { exact: true }).click()
  const builds = dyno.getByRole('table', { name: 'Builds that were on the dyno' })
  for (const name of ['Shop one', 'Shop two', 'Shop three'])
    await expect(builds.getByRole('row', { name: new RegExp(`^${name}`) })).toContainText('→')
  await dyno.getByRole('button', { name: 'Take these constants' }).click()
  await expect(dyno.getByText('The model has these.')).toBeVisible()
  await step(bench, 'Torque')
  await expect(bench.getByText(/not pulled yet: constants of the shop/)).toBeVisible()
  // One step of undo is all of them.
  await bench.keyboard.press('Control+z')
  await expect(bench.getByText(/not pulled yet: constants of the shop/)).toHaveCount(0)
  await bench.keyboard.press('Control+y')
  await bench.getByRole('button', { name: 'Forget the calibration' }).click()
  await expect(bench.getByText(/not pulled yet: constants of the shop/)).toHaveCount(0)
})
