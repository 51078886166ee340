import { readFileSync } from 'node:fs'
import { drag, event, expect, test } from './screen'

test('a save from a second tab is never lost: it is told and kept as a build of its own', async ({ bench: page, context }) => {
  const other = await context.newPage()
  await other.goto(page.url())
  await expect(event(other, 'Intake closes')).toHaveValue('32.0')
  await drag(page, 'Intake closes', 20)
  await page.locator('body').press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await drag(other, 'Exhaust opens', 20)
  await other.locator('body').press('Control+s')
  await expect(other.getByText('This build was saved elsewhere: it is at revision 2')).toBeVisible()
  await other.getByRole('button', { name: 'Keep mine as a new build' }).click()
  await expect(other.getByText('revision 1 saved')).toBeVisible()
  const opens = await event(other, 'Exhaust opens').inputValue()
  await other.reload()
  await expect(event(other, 'Exhaust opens')).toHaveValue(opens)
  expect(other.url()).not.toBe(page.url())
})

test('while the server is away edits are told of, and work goes on when it is back', async ({ bench: page }) => {
  await page.route('**/api/**', (route) => route.abort())
  await drag(page, 'Intake closes', 20)
  await expect(page.getByText('The server does not answer')).toBeVisible()
  await page.unroute('**/api/**')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('The server does not answer')).toHaveCount(0)
  await drag(page, 'Intake closes', 20)
  await expect(event(page, 'Intake closes')).not.toHaveValue('32.0')
})

test('an imported file that is no build is refused with every fault; a good one opens', async ({ bench: page }) => {
  const demo = readFileSync(new URL('../../demo/tollgate-388-hauler.json', import.meta.url), 'utf8')
  const choose = (name: string, text: string) =>
    page.getByLabel('Build document').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })
  await choose('broken.json', demo.replace('"4.060 in"', '"4.060"').replace('"bore"', '"bohr"'))
  await expect(page.getByRole('dialog')).toContainText('engine.bohr')
  await expect(page.getByRole('dialog')).toContainText('did you mean "bore"?')
  await page.getByRole('dialog').getByRole('button').first().click()
  await choose('named.json', demo.replace('Tollgate 388 hauler', '<img src=x onerror=alert(1)>'))
  await expect(page.locator('.build-select')).toContainText('<img src=x onerror=alert(1)>')
})

test('a drag beyond sense is refused in words and changes nothing', async ({ bench: page }) => {
  await event(page, 'Intake closes').fill('900')
  await event(page, 'Intake closes').press('Enter')
  await expect(page.getByText('Refused, nothing changed')).toBeVisible()
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})
