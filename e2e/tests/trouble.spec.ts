import { readFileSync, writeFileSync } from 'node:fs'
import { drag, event, expect, paste, step, test } from './screen'

test('two tabs: what each changed is saved together, field by field', async ({
  bench: page,
  context,
}) => {
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(event(other, 'Intake closes')).toHaveValue('32.0')
  await drag(page, 'Intake closes', 20)
  await page.locator('body').press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  const closes = await event(page, 'Intake closes').inputValue()
  await step(other, 'Spring')
  const height = other.getByRole('textbox', { name: 'Installed height' })
  await height.fill('1.790')
  await height.press('Enter')
  await other.locator('body').press('Control+s')
  const dialog = other.getByRole('dialog')
  await expect(dialog).toContainText('Saved elsewhere meanwhile: revision 2')
  await expect(dialog).toContainText('No field was changed on both sides')
  await dialog.getByRole('button', { name: 'Save both together' }).click()
  await expect(other.getByText('revision 3 saved')).toBeVisible()
  await expect(height).toHaveValue('1.790 in')
  await step(other, 'Events')
  await expect(event(other, 'Intake closes')).toHaveValue(closes)
})

test('two tabs that changed one field choose, or keep both as candidates', async ({
  bench: page,
  context,
}) => {
  const other = await context.newPage()
  await other.goto(page.url())
  for (const [tab, bore] of [
    [page, '4.070'],
    [other, '4.080'],
  ] as const) {
    await step(tab, 'Engine')
    await tab.getByRole('textbox', { name: 'Bore', exact: true }).fill(bore)
    await tab.getByRole('textbox', { name: 'Bore', exact: true }).press('Enter')
    await expect(tab.getByRole('textbox', { name: 'Bore', exact: true })).toHaveValue(`${bore} in`)
    await tab.locator('body').press('Control+s')
  }
  const dialog = other.getByRole('dialog')
  await expect(dialog.getByRole('row', { name: /^Bore/ })).toContainText('4.060 in')
  await dialog.getByRole('radio', { name: '4.070 in' }).click()
  await expect(dialog.getByText('Taken over from what was saved')).toBeVisible()
  await dialog.getByRole('button', { name: 'Keep mine as a candidate beside it' }).click()
  await expect(other.getByText('revision 3 saved')).toBeVisible()
  await expect(other.getByRole('button', { name: 'A even keel (kept)' })).toBeVisible()
  await expect(other.getByRole('textbox', { name: 'Bore', exact: true }).first()).toHaveValue(
    '4.070 in',
  )
  await other.getByRole('button', { name: 'A even keel (kept)' }).click()
  await expect(
    other
      .getByRole('group', { name: 'Only in this candidate' })
      .getByRole('textbox', { name: 'Bore' }),
  ).toHaveValue('4.080 in')
})

test('edits that are not saved are there again after a reload, and can be dropped', async ({
  bench: page,
}) => {
  page.on('dialog', (dialog) => void dialog.accept())
  await drag(page, 'Intake closes', 20)
  await expect(page.getByText('not saved')).toBeVisible()
  const closes = await event(page, 'Intake closes').inputValue()
  await page.reload()
  await expect(page.getByText('Edits of this tab that were not saved are here again')).toBeVisible()
  await expect(event(page, 'Intake closes')).toHaveValue(closes)
  await page.getByRole('button', { name: 'Back to what was saved' }).click()
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})

test('while the server is away edits are told of, and work goes on when it is back', async ({
  bench: page,
}) => {
  await page.route('**/api/**', (route) => route.abort())
  await drag(page, 'Intake closes', 20)
  await expect(page.getByText('The server does not answer')).toBeVisible()
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('The server does not answer')).toBeVisible()
  await page.unroute('**/api/**')
  // What was under way may ask once more by itself and be answered first: then there is nothing left to try.
  await expect(async () => {
    const again = page.getByRole('button', { name: 'Try again' })
    if (await again.isVisible()) await again.click({ timeout: 1000 })
    await expect(page.getByText('The server does not answer')).toHaveCount(0, { timeout: 1000 })
  }).toPass()
  await drag(page, 'Intake closes', 20)
  await expect(event(page, 'Intake closes')).not.toHaveValue('32.0')
})

test('an imported file that is no build is refused with every fault; a good one opens', async ({
  bench: page,
}) => {
  const demo = readFileSync(new URL('../../demo/tollgate-388-hauler.json', import.meta.url), 'utf8')
  const choose = (name: string, text: string) =>
    page
      .getByLabel('Build document')
      .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  await choose('broken.json', demo.replace('"4.060 in"', '"4.060"').replace('"bore"', '"bohr"'))
  await expect(page.getByRole('dialog')).toContainText('engine.bohr')
  await expect(page.getByRole('dialog')).toContainText('did you mean "bore"?')
  await page.getByRole('dialog').getByRole('button').first().click()
  await choose('named.json', demo.replace('Tollgate 388 hauler', '<img src=x onerror=alert(1)>'))
  await expect(page.locator('.build-button')).toContainText('<img src=x onerror=alert(1)>')
})

test('a file of 50 MB, one of a newer version and pasted rubbish are refused in words', async ({
  bench: page,
}, info) => {
  const demo = readFileSync(new URL('../../demo/tollgate-388-hauler.json', import.meta.url), 'utf8')
  const choose = (name: string, content: string | Buffer) => {
    writeFileSync(info.outputPath(name), content)
    return page.getByLabel('Build document').setInputFiles(info.outputPath(name))
  }
  const dialog = page.getByRole('dialog')
  await choose('large.json', Buffer.alloc(49e6, 32))
  await expect(dialog).toContainText('a build document has at most 4 MB')
  await dialog.getByRole('button').first().click()
  await expect(dialog).toHaveCount(0)
  await choose('newer.json', demo.replace('"version": 1', '"version": 9'))
  await expect(dialog).toContainText('open it with a newer Upper Lobe')
  await dialog.getByRole('button').first().click()
  await step(page, 'Engine')
  const table = page.locator('[data-field="engine.intake.flow"]')
  await table.locator('input').first().focus()
  await paste(page, table, 'one\ttwo\n<b>three</b>\tfour')
  await expect(table.getByRole('alert')).toBeVisible()
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})

test('a drag beyond sense is refused in words and changes nothing', async ({ bench: page }) => {
  await event(page, 'Intake closes').fill('900')
  await event(page, 'Intake closes').press('Enter')
  await expect(page.getByText('Refused, nothing changed')).toBeVisible()
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})
