import { expect, step, test } from './screen'

/** A lobe of .330 in over 66 cam degrees a flank as a dial and a degree wheel read it, on the crank. */
function measured(): string {
  const rows = Array.from({ length: 91 }, (_, i) => {
    const crank = 4 * (i - 45)
    const share = Math.max(0, 1 - (crank / 132) ** 2)
    return `${String(crank)};${(0.33 * share ** 3).toFixed(4).replace('.', ',')}`
  })
  return ['crank deg;lift (in)', ...rows].join('\n')
}

test('a measured lobe comes in and the budget says what the valve gets of it', async ({
  bench,
}) => {
  await step(bench, 'Lobe')
  const file = bench.getByLabel('Import a measured intake lobe, file')
  await file.setInputFiles({
    name: 'lobe.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(measured()),
  })
  await expect(bench.getByRole('row', { name: /^Residual of the measured points/ })).toBeVisible()
  await step(bench, 'Rocker')
  const budget = bench.locator('.budget').first()
  await expect(budget.getByRole('listitem').first()).toContainText('.330 in')
  await expect(budget.getByRole('listitem').last()).toContainText('less flex')
  const lifts = await budget.locator('li > .figure:nth-of-type(2)').allTextContents()
  const [, , geometric = 0, , running = 0] = lifts.map(Number.parseFloat)
  expect(running).toBeLessThan(geometric - 0.015)
})

test('a file that is no lobe is refused with its reason and changes nothing', async ({ bench }) => {
  await step(bench, 'Lobe')
  await bench
    .getByLabel('Import a measured intake lobe, file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('1;2\n3;4') })
  await expect(bench.locator('.lobe-tools').getByRole('alert')).toContainText('at least 12 points')
  await expect(bench.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('the rocker is drawn through its sweep, and what to order is told', async ({ bench }) => {
  await step(bench, 'Rocker')
  await expect(bench.getByRole('img', { name: 'intake rocker to scale' })).toBeVisible()
  const sweep = bench.getByRole('slider', { name: 'valve lift', exact: true })
  await sweep.focus()
  await sweep.press('End')
  await expect(sweep).toHaveAttribute('aria-valuetext', /\.5\d\d in/)
  await step(bench, 'Order')
  await bench.getByText('What to order, so that the valve runs as the card says').click()
  await expect(
    bench.getByRole('row', { name: /^at \.050 in 210\.0 deg 21\d\.\d deg 210\.0 deg/ }),
  ).toBeVisible()
})

test('a roller on a flat cam is refused for its reason', async ({ bench }) => {
  await step(bench, 'Lobe')
  await bench.getByLabel(/^Ground for/).selectOption('flat')
  const never = bench.getByRole('button', { name: /^Lifter on this cam/ })
  await expect(never).toContainText('not allowed')
  await never.click()
  await expect(bench.getByText(/runs on one edge and skids/)).toBeVisible()
})

test('milling the head is followed by the preload', async ({ bench }) => {
  await step(bench, 'Lifter')
  await bench.getByText('Work that moves the preload').click()
  await bench.getByLabel('Head milled by', { exact: true }).fill('.020')
  await bench.getByLabel('Head milled by', { exact: true }).press('Enter')
  await expect(bench.getByRole('row', { name: /^head milled/ })).toContainText('.019 in')
  await expect(bench.getByRole('row', { name: /^After it/ })).toContainText('.045 in')
})
