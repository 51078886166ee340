import { expect, step, test } from './screen'

test.slow()

test('a score board: every candidate in full, a column added, weighed, taken off and undone', async ({
  bench,
}) => {
  await step(bench, 'Decide')
  const board = bench.getByRole('region', { name: 'Score board' })
  const ask = board.getByRole('button', { name: 'Score every candidate in full' })
  // Curves above come while it is pressed, and move it from under the pointer.
  await expect(async () => {
    await ask.click({ timeout: 5_000 })
    await expect(ask).toHaveCount(0, { timeout: 5_000 })
  }).toPass()
  const rows = board.locator('.board-figures tbody tr')
  await expect(rows).toHaveCount(3, { timeout: 120_000 })
  await expect(board.getByRole('status')).toHaveCount(0, { timeout: 120_000 })
  // The best comes first; off the track it is asked what an engine costs to live with.
  await expect(rows.first().locator('td').first()).toHaveText('1')
  await expect(board.getByRole('columnheader', { name: /^Spring interval/ })).toBeVisible()
  await expect(board.getByRole('img', { name: 'Parts, USD, over peak power' })).toBeVisible()
  const points = rows.first().locator('td').last()
  const before = (await points.textContent()) ?? ''
  const weight = board.getByRole('spinbutton', { name: 'Weight of Average torque' })
  await weight.fill('20')
  await weight.press('Enter')
  await expect(points).not.toHaveText(before)
  await board.getByRole('combobox', { name: 'Add a column' }).click()
  await bench.getByTitle('Least margin').click()
  const least = board.getByRole('columnheader', { name: /^Least margin/ })
  await expect(least).toBeVisible()
  await board.getByRole('button', { name: 'Remove Least margin' }).click()
  await expect(least).toHaveCount(0)
  for (let edits = 0; edits < 3; edits += 1)
    await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(points).toHaveText(before)
})
