import type { Page } from '@playwright/test'
import { expect, step, test } from './screen'

async function choose(page: Page, stepName: string, many: string, part: string): Promise<void> {
  await step(page, stepName)
  await page.getByRole('button', { name: `From the shelf: ${many}` }).click()
  await page.locator('.shelf-list button', { hasText: part }).first().click()
  await expect(page.getByText('What it drags along')).toBeVisible()
}

test('a part is tried, used, undone, edited and kept under a name of its own', async ({
  bench,
}) => {
  await choose(bench, 'Rocker', 'rockers', 'Aluminium stud roller 1.65')
  await expect(bench.getByText(/ratio 1\.6 to 1\.65/)).toBeVisible()
  await expect(bench.getByRole('row', { name: /^Intake coil-bind clearance/ })).toBeVisible()
  await bench.getByRole('button', { name: 'Use in this candidate' }).click()
  const ratio = bench.getByRole('textbox', { name: 'Ratio', exact: true })
  await expect(ratio).toHaveValue('1.65')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(ratio).toHaveValue('1.60')
  await bench.getByRole('button', { name: 'Redo' }).click()
  await ratio.fill('1.66')
  await ratio.press('Enter')
  await expect(bench.getByText('Aluminium stud roller 1.65, edited', { exact: true })).toBeVisible()
  await bench.getByRole('button', { name: 'From the shelf: rockers' }).click()
  const name = `Own 1.66 ${String(Date.now())}`
  await bench.getByRole('textbox', { name: 'Name on the shelf' }).fill(name)
  await bench.getByRole('textbox', { name: 'Name on the shelf' }).press('Enter')
  const kept = bench.locator('.shelf-list button', { hasText: name })
  await expect(kept).toContainText('made from Aluminium stud roller 1.65')
  await kept.click()
  await bench.getByRole('button', { name: 'Remove', exact: true }).click()
  await bench.getByRole('tooltip').getByRole('button', { name: 'Remove' }).click()
  await expect(bench.getByRole('textbox', { name: 'Find a part' })).toBeVisible()
  await expect(kept).toBeHidden()
})

test('what never goes together is said with its reason before it is used', async ({ bench }) => {
  await choose(bench, 'Lifter', 'lifters', 'Hydraulic flat')
  await expect(bench.getByRole('status').filter({ hasText: 'Never goes together' })).toBeVisible()
  await expect(bench.getByText(/digs its edge into the flank/)).toBeVisible()
  await expect(bench.getByRole('button', { name: 'Use it all the same' })).toBeVisible()
})

test('a part used in a copy leaves the candidate as it was and lies beside it', async ({
  bench,
}) => {
  await choose(bench, 'Rocker', 'rockers', 'Aluminium stud roller 1.65')
  await bench.getByRole('button', { name: 'Use in a copy' }).click()
  await expect(bench.getByRole('textbox', { name: 'Ratio', exact: true })).toHaveValue('1.65')
  await expect(bench.locator('.beside-note')).toContainText('dotted: A even keel')
  await bench.getByRole('button', { name: 'A even keel', exact: true }).click()
  await expect(bench.getByRole('textbox', { name: 'Ratio', exact: true })).toHaveValue('1.60')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(bench.locator('.candidates button', { hasText: 'stud roller' })).toHaveCount(0)
})

test('a sheet goes in whole or not at all', async ({ bench }) => {
  await step(bench, 'Pushrod')
  await bench.getByRole('button', { name: 'From the shelf: pushrods' }).click()
  const file = bench.getByLabel('Parts sheet, file')
  const sheet = (wall: string) => ({
    name: 'parts.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `part_kind;name;length (mm);wall\npushrod;Sheet rod;196,2;0.08 in\npushrod;Other rod;196,4;${wall}\n`,
    ),
  })
  await file.setInputFiles(sheet('thick'))
  await expect(bench.locator('.sheet-row').getByRole('alert')).toContainText('line 3, wall')
  await expect(bench.locator('.shelf-list')).not.toContainText('Sheet rod')
  await file.setInputFiles(sheet('0.1 in'))
  await expect(bench.locator('.shelf-list')).toContainText('196.2 mm')
  for (const name of ['Sheet rod', 'Other rod']) {
    await bench.locator('.shelf-list button', { hasText: name }).click()
    await bench.getByRole('button', { name: 'Remove', exact: true }).click()
    await bench.getByRole('tooltip').getByRole('button', { name: 'Remove' }).click()
    await expect(bench.getByRole('textbox', { name: 'Find a part' })).toBeVisible()
  }
})

test('lobes of two candidates lie over each other and are told apart', async ({ bench }) => {
  await bench.getByRole('button', { name: /^Candidate: duplicate/ }).click()
  await bench.getByText('Lay B later closing beside').click()
  await step(bench, 'Lobe')
  await expect(bench.locator('.lobes .swatch.beside')).toHaveCount(8)
  await bench.getByText('intake', { exact: true }).first().click()
  await expect(bench.locator('.lobes .swatch.beside')).toHaveCount(4)
  await expect(bench.getByText(/less area above \.200 in/)).toBeVisible()
})

test('the strip says what the valve gets beside what the card promises', async ({ bench }) => {
  await expect(bench.locator('.readout')).toContainText(
    /Intake rigid lift \.\d+, running \.\d+, gap \.\d+ in/,
  )
})

test('the shelf is reached and left by keyboard alone', async ({ bench }) => {
  await bench.keyboard.press('Control+k')
  await bench.keyboard.type('shelf: springs')
  await bench.keyboard.press('Enter')
  const find = bench.getByRole('textbox', { name: 'Find a part' })
  await find.focus()
  await find.fill('145')
  await bench.keyboard.press('Tab')
  await bench.keyboard.press('Tab')
  await expect(bench.locator('.shelf-list button').first()).toBeFocused()
  await bench.keyboard.press('Enter')
  await expect(bench.getByText('What it drags along')).toBeVisible()
  await bench.keyboard.press('Escape')
  await expect(bench.getByText('What it drags along')).toBeHidden()
})
