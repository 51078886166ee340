import { ALONE, expect, step, test } from './screen'

test.slow()
test.use({ document: ALONE })

test('a search: begun, its finalists explained, one kept as a candidate and undone', async ({
  bench,
}) => {
  await step(bench, 'Choose')
  const search = bench.getByRole('region', { name: 'Search' })
  await expect(search).toBeVisible({ timeout: 120_000 })
  await search.getByRole('combobox', { name: 'What may be changed' }).click()
  await bench.getByTitle('only when the cam runs').click()
  await search.getByRole('button', { name: 'Search', exact: true }).click()
  // Candidates come as they are computed, then finalists in full.
  await expect(search.getByRole('img', { name: 'Candidates of the search' })).toBeVisible({
    timeout: 60_000,
  })
  const finalists = search.getByRole('table').filter({ hasText: 'Finalists, in full' })
  await expect(finalists).toBeVisible({ timeout: 240_000 })
  const first = finalists.getByRole('button', { name: /^Found 1 / })
  await first.click()
  await expect(finalists).toContainText('whole cam earlier')
  await expect(finalists).toContainText('better than what stands')
  await search.locator('.trade-full').first().dispatchEvent('click')
  await expect(search.locator('.search-looked')).toContainText('whole cam earlier')
  const tabs = bench.getByRole('navigation', { name: 'Candidates' }).getByRole('button')
  const before = await tabs.count()
  await finalists.getByRole('button', { name: 'Keep as candidate' }).first().click()
  await expect(tabs).toHaveCount(before + 1, { timeout: 60_000 })
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(tabs).toHaveCount(before, { timeout: 60_000 })
})
