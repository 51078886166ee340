import { execFileSync } from 'node:child_process'
import { DEMO, expect, step, test, unfold } from './screen'
import { BINARY } from './servers'

test.slow()

test('control is computed: the limit, the map by keys, what buys speed, and the margin takes it up', async ({
  bench,
}) => {
  await step(bench, 'Control')
  const answer = bench.locator('.answer')
  await expect(answer).toContainText(/valve loses control first, at \d+ rpm/, { timeout: 120_000 })
  await expect(bench.getByText('solid lifter at zero lash')).toBeVisible({ timeout: 120_000 })

  const map = bench.getByRole('slider', { name: 'Load on the intake lobe over speed' })
  await map.focus()
  await map.press('Home')
  const slow = await map.getAttribute('aria-valuetext')
  expect(slow).not.toContain('contact is lost')
  await expect(bench.getByText(/^Lift of the intake valve at/)).toContainText(
    slow?.split(' ')[0] ?? '',
  )
  await map.press('End')
  await expect(map).toHaveAttribute('aria-valuetext', /contact is lost/)

  await unfold(bench)
  // The margins name the computed limit; the hand check beside it is advice at worst.
  await expect(bench.getByText('Limiting speed (in motion)').first()).toBeVisible({
    timeout: 60_000,
  })
})

test('a stricter threshold is reached sooner, and a change leads to its field', async ({
  bench,
}) => {
  await step(bench, 'Control')
  const answer = bench.locator('.answer')
  const limit = async () => Number((await answer.textContent())?.match(/at (\d+) rpm/)?.[1])
  // The limit of the usual train comes at once; the one with its band is the result.
  await expect(answer).toContainText(/at \d+ rpm \(/, { timeout: 120_000 })
  const usual = await limit()
  await bench.getByRole('combobox', { name: 'What counts as lost control' }).click()
  await bench.getByText('.010 in counts as lost').last().click()
  await expect.poll(limit, { timeout: 120_000 }).toBeLessThan(usual)
  await bench.getByRole('button', { name: 'lighter valve' }).click({ timeout: 120_000 })
  await expect(bench.getByLabel('Mass', { exact: true }).first()).toBeVisible()
})

test('the strip shows the valves in motion, and the drawing turns slowly at that speed', async ({
  bench,
}) => {
  await step(bench, 'Control')
  await expect(bench.getByText('Choices of the trade, with this build’s figures')).toBeVisible({
    timeout: 120_000,
  })
  // The strip is tall here, with the load on the lobes below it, at the speed the map looks at.
  await expect(bench.getByLabel('Trace below the strip')).toBeVisible()
  await expect(bench.locator('.gas-waiting')).toHaveText(/^at \d+ rpm$/)
  const map = bench.getByRole('slider', { name: 'Load on the intake lobe over speed' })
  await map.focus()
  await map.press('End')
  const top = (await map.getAttribute('aria-valuenow')) ?? ''
  await expect(bench.locator('.gas-waiting')).toHaveText(`at ${top} rpm`)
  await bench.getByText(`Slow motion at ${top} rpm`).click()
  const drawing = bench.locator('.slow-motion')
  await expect(drawing.getByRole('img', { name: /^intake valve, spring/ })).toBeVisible()
  await expect(drawing.getByText(/drawn 10 times/)).toBeVisible()
  // Past control there are angles at which it has parted: turned through half a cycle a ring shows.
  await drawing.getByRole('button', { name: 'Turn slowly' }).click()
  await expect(drawing.locator('.parted').first()).toBeVisible({ timeout: 60_000 })
  await drawing.getByRole('button', { name: 'Hold' }).click()
})

test('measured heights become a sheet of shims', async ({ bench }) => {
  await step(bench, 'Spring')
  await bench.getByText('Installed heights of every valve').click()
  const measured = bench.locator('[data-field="candidates[0].train.heights.measured"]')
  for (const [row, height] of ['1.812', '1.845', '1.800', '1.790'].entries()) {
    const cell = measured.getByLabel(`Measured heights, row ${String(row + 1)}, Measured heights`)
    await expect(cell).toBeVisible()
    if (row === 0) await cell.focus()
    // Enter takes a reading and goes on to the next.
    await expect(cell).toBeFocused()
    await bench.keyboard.type(height)
    await bench.keyboard.press('Enter')
    await expect(cell).toHaveValue(`${height} in`)
  }
  const sheet = bench.getByRole('region', { name: 'Installed heights' })
  await expect(
    sheet.getByText(/^intake: 3 shims bring 3 valves to 1.800 in; one is too short/),
  ).toBeVisible()
  await expect(sheet.getByRole('cell', { name: '.030 in + .015 in' }).first()).toBeVisible()
  await bench.keyboard.press('Control+z')
  await bench.keyboard.press('Control+z')
  await expect(sheet.getByRole('row', { name: /^3/ })).toHaveCount(0)
})

test('a train without a weighed lifter says what control needs', async ({ bench }) => {
  await step(bench, 'Lifter')
  await bench.getByLabel('Mass', { exact: true }).fill('')
  await bench.getByLabel('Mass', { exact: true }).press('Enter')
  await step(bench, 'Control')
  await expect(bench.getByText(/^Control is computed once/)).toBeVisible({ timeout: 60_000 })
})

test('lift that a rig measured is taken in, fitted to, taken, and forgotten by undoing', async ({
  bench,
}) => {
  const csv = execFileSync(BINARY, ['motion', '-', '--play', '3000,5600,6400', '--lot', '4'], {
    input: DEMO,
    encoding: 'utf8',
  })
  await step(bench, 'Control')
  const measured = bench.getByRole('region', { name: 'Measured valve motion' })
  await expect(measured).toBeVisible({ timeout: 120_000 })
  await measured
    .getByLabel('File of measured lift')
    .setInputFiles({ name: 'rig.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
  await expect(measured.getByText('intake at 5600 rpm')).toBeVisible()
  await measured.getByRole('button', { name: 'Fit the train to it' }).click()
  const limits = measured.getByRole('table', { name: 'Limiting speeds without it and with it' })
  await expect(limits).toBeVisible({ timeout: 120_000 })
  await expect(measured.getByText(/The usual train is off the measured lift by/)).toBeVisible()
  // Narrower for what was measured: from the table, low to high.
  const width = async (column: number) => {
    const text = await limits.getByRole('row').nth(1).getByRole('cell').nth(column).textContent()
    const [low, high] =
      /\((\d+) to (\d+)\)/
        .exec(text ?? '')
        ?.slice(1)
        .map(Number) ?? []
    return (high ?? 0) - (low ?? 0)
  }
  expect(await width(1)).toBeLessThan(await width(0))
  await measured.getByRole('button', { name: 'Take these constants' }).click()
  await expect(measured.getByText('The train goes by what was measured.')).toBeVisible()
  await expect(measured.getByRole('button', { name: 'Take these constants' })).toBeHidden()
  // What was taken stays to be read while the train is turned anew, whole: nothing of it stands outside its page.
  await expect(limits).toBeVisible()
  const [page, table] = [await measured.boundingBox(), await limits.boundingBox()]
  expect((table?.x ?? 0) + (table?.width ?? 9e9)).toBeLessThanOrEqual(
    (page?.x ?? 0) + (page?.width ?? 0) + 1,
  )
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(measured.getByText('The train goes by what was measured.')).toBeHidden()
})
