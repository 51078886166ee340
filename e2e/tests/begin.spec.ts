import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { event, expect, step, test } from './screen'

/** Counts what a hand does: clicks, and fields typed into. */
class Hand {
  clicks = 0
  fields = 0
  private readonly page: Page

  constructor(page: Page) {
    this.page = page
  }

  async click(role: 'button' | 'radio' | 'menuitem', name: string | RegExp): Promise<void> {
    this.clicks += 1
    await this.page.getByRole(role, { name }).first().click()
  }

  async type(name: string, text: string, key = 'Tab'): Promise<void> {
    this.fields += 1
    const field = this.page.getByRole('textbox', { name, exact: true }).first()
    await field.fill(text)
    await field.press(key)
  }
}

test.slow()

test('a marine V8 from nothing to two compared candidates and a printed order', async ({
  bench: page,
}) => {
  const hand = new Hand(page)
  await hand.click('button', /^Builds; open now/)
  await hand.click('button', 'Begin a build')
  await hand.type('Name of the new build', 'Pier nine')
  await hand.click('radio', 'marine')
  const dialog = page.getByRole('dialog', { name: 'Begin a build' })
  for (const [field, text] of [
    ['Band from', '3500'],
    ['Band to', '5600'],
    ['Bore', '4.040'],
    ['Stroke', '3.75'],
    ['Chamber', '64'],
    ['Piston volume, dish +', '14'],
    ['Intake valve diameter', '2.02'],
    ['Exhaust valve diameter', '1.60'],
  ] as const)
    await hand.type(field, text)
  // What was not typed follows: the gasket's bore from the bore, the exhaust from the use, the rocker from the family.
  await expect(dialog.getByPlaceholder('4.110 in')).toBeVisible()
  await expect(dialog.getByLabel('Exhaust manifold')).toHaveValue('water_jacketed')
  await expect(
    dialog.getByText(/First cam by card rules: \d+ \/ \d+ \/ 11\d \/ 1\d\d deg/),
  ).toBeVisible()
  await hand.click('button', 'Begin Pier nine')
  await expect(page.locator('.build-button')).toContainText('Pier nine')
  await expect(page.getByText(/\d+ ok$/)).toBeVisible()
  await expect(page.locator('.tally')).not.toContainText('unknown')

  // The springs that are there, on the tester: 130 at 1.80, 315 at 1.28.
  await hand.click('button', /^Spring/)
  const points = page.locator('[data-field$="train.spring.points"]')
  for (const [cell, text] of [
    ['row 1, Height', '1.80'],
    ['row 1, Load', '130'],
    ['row 2, Height', '1.28'],
    ['row 2, Load', '315'],
  ] as const) {
    hand.fields += 1
    const field = points.getByRole('textbox', { name: new RegExp(`${cell}$`) })
    await field.fill(text)
    if (cell.endsWith('Load') && cell.startsWith('row 2')) await field.press('Enter')
  }
  await expect(page.locator('.answer')).toContainText('130 lbf closed')
  await hand.click('button', /^Clearance/)
  await expect(page.getByRole('heading', { level: 1, name: 'Clearance' })).toBeVisible()

  // A second candidate, closing later.
  await hand.click('button', /^Candidate: duplicate/)
  await hand.click('menuitem', /^Duplicate/)
  await page.getByRole('searchbox', { name: 'Name' }).fill('B later')
  await page.getByRole('searchbox', { name: 'Name' }).press('Enter')
  hand.fields += 1
  await hand.click('button', /^Events/)
  hand.fields += 1
  const closes = await event(page, 'Intake closes').inputValue()
  await event(page, 'Intake closes').fill(String(Number(closes) + 6))
  await event(page, 'Intake closes').press('Enter')
  await hand.click('button', /^Decide/)
  await expect(page.locator('.answer')).toContainText(/(more|less) than|within what can be told/, {
    timeout: 90_000,
  })
  await expect(page.getByRole('row', { name: /^Can its springs stay/ })).toContainText(/yes|no/)
  await hand.click('button', /^Order/)
  const card = page.getByRole('article', { name: 'Order card' })
  await expect(card.getByRole('row', { name: /^Duration at \.050/ })).toBeVisible()
  await page.evaluate(() => {
    window.print = () => {
      document.body.dataset['printed'] = document.documentElement.dataset['printOnly'] ?? 'page'
    }
  })
  await hand.click('button', 'Print this order')
  await expect(page.locator('body')).toHaveAttribute('data-printed', 'order-card')
  console.log(`walked: ${hand.clicks} clicks, ${hand.fields} fields`)
  expect(hand.clicks).toBeLessThanOrEqual(25)
  expect(hand.fields).toBeLessThanOrEqual(18)
})

test('what is typed wrongly before a build begins is said at its field, and nothing is lost', async ({
  bench: page,
}) => {
  await page.getByRole('button', { name: /^Builds; open now/ }).click()
  await page.getByRole('button', { name: 'Begin a build' }).click()
  const dialog = page.getByRole('dialog', { name: 'Begin a build' })
  await dialog.getByRole('textbox', { name: 'Name of the new build' }).fill('Try it')
  await dialog.getByLabel('Stroke').fill('banana')
  await dialog.getByLabel('Stroke').press('Tab')
  await expect(dialog.getByRole('alert')).toContainText('needs a length')
  await expect(dialog.getByRole('button', { name: /^Begin/ })).toBeDisabled()
  await expect(dialog.getByLabel('Stroke')).toHaveValue('banana')
  await dialog.getByLabel('Stroke').fill('3.5')
  await dialog.getByLabel('Stroke').press('Tab')
  await expect(dialog.getByRole('alert')).toHaveCount(0)
  await dialog.getByRole('button', { name: /^Begin/ }).click()
  await step(page, 'Engine')
  await expect(page.getByLabel('Stroke', { exact: true })).toHaveValue('3.5 in')
  await expect(page.getByRole('button', { name: 'Source of Stroke: no source' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Source of Bore: assumed' })).toBeVisible()
})

test('an address leads to the very place; one that leads nowhere says so', async ({
  bench: page,
  complaints,
}) => {
  const build = /build\/(\d+)/.exec(page.url())?.[1] ?? ''
  await page.goto(`/#/build/${build}/engine/b/engine.bore`)
  await expect(page.getByRole('textbox', { name: 'Bore', exact: true })).toBeFocused()
  await expect(page).toHaveTitle('B later closing · Tollgate 388 hauler · Engine · Upper Lobe')
  await page.getByRole('button', { name: 'C flat lifters, kept' }).click()
  await expect(page).toHaveURL(/\/engine\/c$/)
  await page.goBack()
  await expect(page).toHaveTitle(/^B later closing/)
  await page.goto(`/#/build/${build}/sheet/b`)
  await expect(page.getByRole('button', { name: 'Back to the bench' })).toBeVisible()
  await page.goto(`/#/build/${build}/spring/zz`)
  await expect(page.getByText('There is no candidate “zz” in this build')).toBeVisible()
  await expect(page).toHaveURL(/\/spring\/[abc]$/)
  await page.goto('/#/build/99999/spring/a')
  await expect(page.getByText('The build could not be read')).toBeVisible()
  // A build that is gone is a 404 by design.
  complaints.splice(0)
})

test('the order goes out as CSV and JSON', async ({ bench: page }) => {
  await step(page, 'Order')
  const taken = async (name: string) => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name, exact: true }).click(),
    ])
    return readFileSync(await file.path(), 'utf8')
  }
  const sheet = await taken('CSV')
  expect(sheet).toContain('Closes at .050,intake,32.0 deg after BDC')
  const card = JSON.parse(await taken('JSON')) as { candidate: string; lines: unknown[] }
  expect(card.candidate).toBe('A even keel')
  expect(card.lines.length).toBeGreaterThan(15)
})

test('a chart is read by keys, and taken along as CSV and as a picture', async ({
  bench: page,
}) => {
  await step(page, 'Spring')
  const chart = page.getByRole('slider', { name: 'Load over height, down to bind' })
  await chart.focus()
  await chart.press('End')
  await expect(page.locator('.legend').first()).toContainText('1.80 height, in')
  await expect(page.locator('.legend').first()).toContainText(/intake 136/)
  for (const kind of ['CSV', 'PNG']) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Load over height, down to bind as ${kind}` }).click(),
    ])
    expect(file.suggestedFilename()).toBe(`spring-load.${kind.toLowerCase()}`)
  }
})
