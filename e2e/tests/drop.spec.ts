import type { Page } from '@playwright/test'
import { expect, step, test } from './screen'

/** Lets a file go over the middle of the page, as a hand does. */
async function drop(page: Page, name: string, text: string): Promise<void> {
  const data = await page.evaluateHandle(
    ([file, content]) => {
      const transfer = new DataTransfer()
      transfer.items.add(new File([content ?? ''], file ?? ''))
      return transfer
    },
    [name, text],
  )
  await page.dispatchEvent('main', 'dragover', { dataTransfer: data })
  await expect(page.getByText(/^Drop it:/)).toBeVisible()
  await page.dispatchEvent('main', 'drop', { dataTransfer: data })
}

test('a flow table dropped anywhere is asked what it is, lands in its table, and is undone', async ({
  bench,
}) => {
  await step(bench, 'Plan')
  await drop(bench, 'exhaust side.csv', 'lift,cfm\n.1,61\n.2,112\n.3,148')
  const dialog = bench.getByRole('dialog', { name: /exhaust side\.csv: 3 rows/ })
  await expect(dialog.getByRole('radio', { name: 'Exhaust flow table' })).toBeChecked()
  await dialog.getByRole('button', { name: 'Take it' }).click()
  await expect(bench.getByRole('heading', { level: 1, name: 'Engine' })).toBeVisible()
  const first = bench.getByRole('textbox', { name: /^Flow table.*row 1, Flow$/ }).last()
  await expect(first).toHaveValue('61 cfm')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(first).not.toHaveValue('61 cfm')
})

test('rubbish dropped says so and changes nothing; a parts sheet with a fault names its line', async ({
  bench,
}) => {
  await drop(bench, 'notes.txt', 'call the machinist before Friday')
  const said = bench.getByRole('dialog').filter({ hasText: 'notes.txt is not taken' })
  await expect(said).toContainText('Nothing was changed')
  await said.getByRole('button', { name: 'OK' }).click()
  await drop(bench, 'parts.csv', 'part_kind,name,mass (g)\nvalve,Own,heavy')
  await expect(bench.getByRole('alert').filter({ hasText: 'line 2' })).toBeVisible()
  await bench.getByRole('button', { name: 'Close', exact: true }).click()
  await expect(bench.getByRole('alert').filter({ hasText: 'line 2' })).toBeHidden()
  await expect(bench.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('a build dropped is opened as one of its own', async ({ bench }) => {
  const made = { format: 'upper-lobe.build', version: 1, name: 'Dropped here', candidates: [] }
  await drop(bench, 'own.json', JSON.stringify(made))
  await expect(bench.locator('.build-button')).toContainText('Dropped here')
})
