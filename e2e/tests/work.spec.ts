import type { Page } from '@playwright/test'
import { beginEmpty, event, expect, paste, step, test, unfold } from './screen'

/** Types into fields of the step on screen and commits with Tab, as a person goes down a form. */
async function fill(page: Page, fields: readonly (readonly [string, string])[]): Promise<void> {
  for (const [path, text] of fields) {
    const row = page.locator(`[data-field="${path}"]`)
    const choice = row.getByRole('combobox').first()
    if (await row.locator('.text-input select').count()) await choice.selectOption(text)
    else {
      await row.getByRole('textbox').fill(text)
      await row.getByRole('textbox').press('Tab')
    }
  }
}

test('from a blank page to margins', async ({ bench: page }) => {
  test.setTimeout(60_000)
  await page.getByRole('button', { name: /^Builds; open now/ }).click()
  await beginEmpty(page, 'Shed project')
  await expect(page.locator('.build-button')).toContainText('Shed project')
  await expect(page.getByText(/The strip is drawn once these are given/)).toBeVisible()
  await expect(page.getByRole('region', { name: 'What to measure next' })).toContainText('unknown')

  await step(page, 'Plan')
  await fill(page, [
    ['target.shift_at', '5800'],
    ['target.idle_vacuum', '15'],
  ])
  await step(page, 'Engine')
  await fill(page, [
    ['engine.bore', '4.030'],
    ['engine.stroke', '3.500'],
    ['engine.rod_length', '5.900'],
    ['engine.deck_clearance', '.012'],
    ['engine.gasket_thickness', '.040'],
    ['engine.chamber_volume', '64'],
    ['engine.piston_volume', '6'],
    ['engine.octane_ron', '95'],
    ['engine.intake.valve_diameter', '2.02'],
    ['engine.intake.face_recess', '.150'],
    ['engine.exhaust.valve_diameter', '1.60'],
    ['engine.exhaust.face_recess', '.150'],
  ])
  await step(page, 'Lobe')
  for (const side of ['intake', 'exhaust']) {
    await fill(page, [[`candidates[0].cam.${side}.lobe_lift`, '.320']])
    const table = page.locator(`[data-field="candidates[0].cam.${side}.checks"]`)
    await paste(page, table, '.006\t264\n.050\t212\n.200\t128')
    await expect(table.getByRole('textbox').nth(1)).toHaveValue('264 deg')
  }
  await step(page, 'Events')
  await page.getByText('As the document has it, with sources').click()
  await fill(page, [
    ['candidates[0].cam.lobe_separation', '112'],
    ['candidates[0].cam.intake_centreline', '108'],
  ])
  await step(page, 'Lifter')
  await fill(page, [['candidates[0].train.lifter.kind', 'hydraulic_roller']])
  await step(page, 'Rocker')
  await fill(page, [['candidates[0].train.rocker.ratio', '1.6']])
  await step(page, 'Spring')
  await fill(page, [
    ['candidates[0].train.spring.installed_height', '1.800'],
    ['candidates[0].train.spring.coil_bind_height', '1.150'],
  ])
  await paste(
    page,
    page.locator('[data-field="candidates[0].train.spring.points"]'),
    '1.800 140\n1.250 360',
  )
  await expect(page.getByRole('slider', { name: 'Crank angle' })).toBeVisible()
  await unfold(page)
  for (const margin of [
    'Valve to piston',
    'Coil-bind clearance',
    'Open load',
    'Dynamic compression',
    'Idle overlap',
  ]) {
    await expect(page.getByRole('listitem').filter({ hasText: margin }).first()).not.toContainText(
      'unknown',
    )
  }
  await page.locator('body').press('Control+s')
  await expect(page.getByText(/revision 2 saved/)).toBeVisible()
})

test('a candidate is copied, changed, laid beside, compared in words, and a remedy becomes one of its own', async ({
  bench: page,
}) => {
  const menu = page.getByRole('button', { name: /^Candidate: duplicate/ })
  const tabs = page.getByRole('navigation', { name: 'Candidates' })
  await menu.click()
  await page.getByText('Duplicate this candidate').click()
  await page.getByRole('searchbox', { name: 'Name' }).fill('D four later')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'D four later' })).toHaveAttribute(
    'aria-current',
    'true',
  )
  await event(page, 'Intake closes').fill('36')
  await event(page, 'Intake closes').press('Enter')
  await menu.click()
  await page.getByText('Lay A even keel beside').click()
  await expect(
    page.getByText('dotted: A even keel; this one intake closes 4.0 deg later'),
  ).toBeVisible()
  await step(page, 'Decide')
  await expect(page.locator('.differs')).toContainText('A even keel against D four later')
  await expect(page.locator('.differs section').first()).toContainText(
    'intake closes 4.0 deg earlier',
  )
  await expect(page.getByRole('row', { name: /^intake closes/ })).toContainText('36.0')

  const margin = page.locator('.margin').filter({ hasText: 'Valve float speed' })
  await margin.getByRole('button', { name: /^Valve float speed/ }).click()
  await margin.getByRole('button', { name: /^New candidate with Spring installed height/ }).click()
  await expect(tabs.getByRole('button', { name: /^D: spring installed height/ })).toHaveAttribute(
    'aria-current',
    'true',
  )
  await expect(margin).not.toContainText('tight')
  await page.locator('body').press('Control+z')
  await expect(tabs.getByRole('button', { name: /^D: spring installed height/ })).toHaveCount(0)
})

test('a shop holds to its own figure with a reason, and goes back', async ({ bench: page }) => {
  await unfold(page)
  const margin = page.getByRole('listitem').filter({ hasText: /Coil-bind clearance(?! at speed)/ })
  await margin.getByRole('button', { name: /Coil-bind clearance/ }).click()
  await margin.getByRole('button', { name: "set this shop's own figure" }).click()
  await margin.getByRole('textbox', { name: 'At least, with its unit' }).fill('.150 in')
  await margin.getByRole('textbox', { name: 'Reason' }).fill('Springs of this kind settle')
  await page.keyboard.press('Tab')
  await margin.getByRole('button', { name: 'hold to it' }).click()
  await expect(margin).toContainText('fails')
  await expect(margin).toContainText('this shop: Springs of this kind settle')
  await margin.getByRole('button', { name: 'back to the default figure' }).click()
  await expect(margin).not.toContainText('this shop: Springs of this kind settle')
  await expect(margin).toHaveClass(/\bok\b/)
})

test('a flow table is pasted from a spreadsheet, undone, and drawn', async ({ bench: page }) => {
  await step(page, 'Engine')
  const table = page.locator('[data-field="engine.intake.flow"]')
  await paste(page, table, 'Lift (mm);Flow (l/s)\n2,5;31\n5;63\n7,5;90\n10;108')
  await expect(table.getByRole('textbox').nth(0)).toHaveValue('2.5 mm')
  await expect(table.getByRole('textbox').nth(7)).toHaveValue('108 l/s')
  await expect(page.getByRole('slider', { name: 'intake flow over valve lift' })).toBeVisible()
  await page.locator('body').press('Control+z')
  await expect(table.getByRole('textbox').nth(0)).toHaveValue('0.100 in')
})

test('every row of a long table is there, and the one edited is the one that changes', async ({
  bench: page,
}) => {
  const points = Array.from(
    { length: 151 },
    (_, i) => [i - 75, 0.33 * Math.max(0, 1 - ((i - 75) / 68) ** 2) ** 3] as const,
  )
  const sheet = [
    'cam deg;lift (in)',
    ...points.map(([deg, lift]) => `${deg};${lift.toFixed(4)}`),
  ].join('\n')
  await step(page, 'Lobe')
  await page
    .getByLabel('Import a measured intake lobe, file')
    .setInputFiles({ name: 'lobe.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) })
  const table = page.locator('[data-field="candidates[0].cam.intake.profile"]')
  const lifts = async () => {
    const draft = await page.evaluate(() =>
      sessionStorage.getItem(`upper-lobe.draft.${/build\/(\d+)/.exec(location.hash)?.[1] ?? ''}`),
    )
    const { document } = JSON.parse(draft ?? '{"document":"{}"}') as { document: string }
    return (
      (
        JSON.parse(document) as {
          candidates?: { cam: { intake: { profile?: { lift: string[] } } } }[]
        }
      ).candidates?.[0]?.cam.intake.profile?.lift ?? []
    )
  }
  await expect.poll(async () => (await lifts()).length).toBeGreaterThan(140)
  const before = await lifts()
  await expect(table.locator(`[aria-rowcount="${before.length + 1}"]`)).toBeVisible()
  for (const row of [25, 76, 140]) {
    const cell = table.getByRole('textbox', { name: new RegExp(`, row ${row}, Lift`) })
    await expect(async () => {
      await table.locator('.rows-window').evaluate((frame, to) => {
        frame.scrollTop = (to - 6) * 26
      }, row)
      await expect(cell).toBeVisible({ timeout: 2_000 })
    }).toPass()
    await cell.fill(`${(Number.parseFloat(before[row - 1] ?? '') + 0.0031).toFixed(4)} mm`)
    await cell.press('Enter')
    await expect.poll(async () => (await lifts())[row - 1]).not.toBe(before[row - 1])
    const after = await lifts()
    expect(after).toHaveLength(before.length)
    expect(after.filter((lift, place) => lift !== before[place])).toHaveLength(1)
    before[row - 1] = after[row - 1] ?? ''
  }
})

test('everything goes out as one file and comes in again beside what is there', async ({
  bench: page,
}) => {
  const drawer = page.getByRole('button', { name: /^Builds; open now/ })
  await drawer.click()
  const gone = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Export everything' }).click()
  const file = await (await gone).path()
  const builds = page.locator('.builds .build-name')
  const before = await builds.count()
  await page.getByLabel('Archive of everything, file').setInputFiles(file)
  await expect(page.getByText(/^\d+ builds added; 0 parts added/)).toBeVisible()
  await expect.poll(() => builds.count()).toBeGreaterThan(before)
  await page
    .getByLabel('Archive of everything, file')
    .setInputFiles({ name: 'x.zip', mimeType: 'application/zip', buffer: Buffer.from('no zip') })
  await expect(page.locator('.whole-archive').getByRole('alert')).toContainText(
    'this is no ZIP archive',
  )
})

test('builds are begun, duplicated, looked back at, archived, restored, and deleted only by name', async ({
  bench: page,
}) => {
  const name = `Drawer ${Date.now()}`
  const builds = page.getByRole('button', { name: /^Builds; open now/ })
  const row = page.locator('.builds li').filter({ hasText: name })
  await builds.click()
  await beginEmpty(page, name)
  await expect(page.locator('.build-button')).toContainText(name)
  await step(page, 'Engine')
  await page.getByRole('textbox', { name: 'Bore', exact: true }).fill('4.000')
  await page.getByRole('textbox', { name: 'Bore', exact: true }).press('Enter')
  await page.locator('body').press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await builds.click()
  await row.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'What it has and what changed since' }).nth(1).click()
  await expect(page.locator('.since')).toContainText('Bore: not given → 4.000 in')
  await page.getByRole('button', { name: 'Take this revision up again' }).click()
  await page.getByRole('button', { name: 'Back to all builds' }).click()
  await row.getByRole('button', { name: 'Archive' }).click()
  await expect(row).toHaveCount(0)
  await page.getByText('archive', { exact: true }).click()
  await row.getByRole('button', { name: 'Delete for good' }).click()
  await expect(row.getByRole('button', { name: 'Delete', exact: true })).toBeDisabled()
  await row.getByRole('button', { name: 'Keep it' }).click()
  await row.getByRole('button', { name: 'Restore' }).click()
  await page.getByText('in use', { exact: true }).click()
  await expect(row).toHaveCount(1)
})

test('everything by keyboard: a step, a field, an event, a candidate, save', async ({
  bench: page,
}) => {
  await page.keyboard.press('Alt+8')
  await expect(page.getByRole('heading', { name: 'Spring', level: 1 })).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('coil bind height')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Coil bind height' })).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('1.170')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('textbox', { name: 'Coil bind height' })).toHaveValue('1.170 in')
  await page.keyboard.press('Alt+ArrowRight')
  await expect(page.getByRole('button', { name: 'B later closing' })).toHaveAttribute(
    'aria-current',
    'true',
  )
  await page.keyboard.press('Alt+3')
  await page.getByRole('slider', { name: 'Intake opens at .050' }).focus()
  await page.keyboard.press('ArrowLeft')
  await expect(event(page, 'Intake opens')).toHaveValue('4.5')
  await page.keyboard.press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
})

test('the crank turns slowly and every picture follows', async ({ bench: page }) => {
  await page.getByRole('button', { name: 'Turn slowly' }).click()
  const angle = page.locator('.cylinder-head b').first()
  const before = Number(await angle.textContent())
  await expect.poll(async () => Number(await angle.textContent())).toBeGreaterThan(before + 20)
  await page.getByRole('button', { name: 'Hold' }).click()
  await expect(page.locator('.strip .cursor text').first()).toHaveText(
    (await angle.textContent()) ?? '',
  )
})

test('the sheet has margins, fields and cautions, and curves are taken along as CSV', async ({
  bench: page,
}) => {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Strip curves as CSV' }).click(),
  ])
  const stream = await file.createReadStream()
  let text = ''
  for await (const chunk of stream) text += String(chunk)
  expect(text.split('\r\n')).toHaveLength(723)
  expect(text).toContain('crank (deg),piston (mm),intake lift (mm)')
  await page.getByRole('button', { name: /^More/ }).click()
  await page.getByText('Build sheet, to print').click()
  await expect(page.getByRole('heading', { name: 'Tollgate 388 hauler' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Intake open load/ })).toContainText('ok')
  await expect(page.getByText('licensed professionals')).toBeVisible()
  await page.getByRole('button', { name: 'Back to the bench' }).click()
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
})

test('one candidate gets an engine of its own, the others keep the shared one', async ({
  bench: page,
}) => {
  await step(page, 'Engine')
  const shared = page.locator('[data-field="engine.gasket_thickness"]')
  await shared.getByRole('textbox').press('Alt+ArrowDown')
  await page.getByRole('menuitem', { name: 'Its own for A even keel' }).click()
  const own = page.locator('[data-field="candidates[0].changes.engine.gasket_thickness"]')
  await own.getByRole('textbox').fill('.060')
  await own.getByRole('textbox').press('Enter')
  await unfold(page)
  const margin = page.locator('.margin').filter({ hasText: /Piston to head(?! at speed)/ })
  await expect(margin).toContainText('.068 in')
  await page.getByRole('button', { name: 'B later closing' }).click()
  await expect(margin).toContainText('.050 in')
  await expect(shared.getByRole('textbox')).toHaveValue('0.042 in')
})
