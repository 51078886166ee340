import { readFileSync } from 'node:fs'
import { beginMarine, printOrder } from './hand'
import { event, expect, step, test } from './screen'

test.slow()

test('a marine V8 from nothing to two compared candidates and a printed order', async ({
  bench: page,
}) => {
  const hand = await beginMarine(page)
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
  await printOrder(page, hand)
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
  expect(sheet).toContain('Revision,,1,')
  const card = JSON.parse(await taken('JSON')) as { candidate: string; lines: unknown[] }
  expect(card.candidate).toBe('A even keel')
  expect(card.lines.length).toBeGreaterThan(15)
  // What goes out with edits that nobody saved says so, on paper and in the file.
  const paper = page.getByRole('article', { name: 'Order card' })
  await expect(paper).toContainText('Revision 1,')
  await step(page, 'Events')
  await event(page, 'Intake closes').fill('34')
  await event(page, 'Intake closes').press('Enter')
  await step(page, 'Order')
  await expect(paper).toContainText('34.0 deg after BDC')
  await expect(paper).toContainText('Revision 1, with edits that are not saved')
  const edited = await taken('CSV')
  expect(edited).toContain('Closes at .050,intake,34.0 deg after BDC')
  expect(edited).toContain('Revision,,"1, with edits that are not saved",')
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
