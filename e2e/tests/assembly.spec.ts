import { expect, step, test } from './screen'

test('lines are signed in their order, undone with a reason, and what rested on them says so', async ({
  bench,
}) => {
  await step(bench, 'Bench')
  await bench.getByText('Assemble', { exact: true }).click()
  const work = bench.getByRole('region', { name: 'Assembly' })
  const status = work.getByRole('status')
  await expect(status).toContainText(/^0 of \d+ lines done/)
  const sign = (what: string) => work.getByRole('button', { name: `Sign ${what}` })
  // Nobody signs without a name, and nothing before its turn.
  await expect(sign('Oil ways clear')).toBeDisabled()
  await work.getByRole('textbox', { name: 'Signed by' }).fill('Ida')
  await expect(sign('Lifters free in their bores')).toBeDisabled()
  await sign('Oil ways clear').click()
  await expect(status).toContainText('1 of')
  await sign('Lifters free in their bores').click()
  await expect(status).toContainText('2 of')
  await work.getByRole('button', { name: 'Undo Oil ways clear' }).click()
  const why = work.getByRole('textbox', { name: 'Why Oil ways clear is undone' })
  await why.press('Enter')
  await why.fill('a plug was left out')
  await why.press('Enter')
  await expect(work.getByText('undone: a plug was left out')).toBeVisible()
  await expect(work.getByText('signed before what it waits for')).toBeVisible()
  // The tab's own undo takes back what was written last.
  await bench.getByRole('banner').getByRole('button', { name: 'Undo' }).click()
  await expect(status).toContainText('2 of')
})
