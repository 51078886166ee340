import { drag, event, expect, handle, step, test, unfold } from './screen'

test('open, drag, nudge, type with units, a refused value, undo, redo, save, reload', async ({
  bench: page,
}) => {
  // Drag: the event moves, the card follows, margins and the line of what moved too.
  await unfold(page)
  const gap = page.getByRole('button', { name: /^Valve to piston (ok|tight|fails)/ })
  const before = await gap.textContent()
  await drag(page, 'Intake opens', -10.75)
  await expect(event(page, 'Intake opens')).toHaveValue('8.0')
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  await expect(page.getByRole('textbox', { name: 'Intake duration' })).toHaveValue('220.0')
  await expect(page.getByRole('status').filter({ hasText: 'Moved' })).toContainText(
    'intake opens -2.0 8.0',
  )
  await expect(gap).not.toHaveText(before ?? '')

  // Nudge by keys: half a degree, five with Shift.
  await handle(page, 'Exhaust closes').focus()
  await page.keyboard.press('ArrowRight')
  await expect(event(page, 'Exhaust closes')).toHaveValue('-7.5')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(event(page, 'Exhaust closes')).toHaveValue('-2.5')

  // Type an event and a card number, with and without the unit.
  await event(page, 'Intake closes').fill('36 deg')
  await event(page, 'Intake closes').press('Enter')
  await expect(page.getByRole('textbox', { name: 'Intake duration' })).toHaveValue('224.0')
  await page.getByRole('textbox', { name: 'Lobe separation' }).fill('114')
  await page.getByRole('textbox', { name: 'Lobe separation' }).press('Enter')
  await expect(event(page, 'Exhaust closes')).not.toHaveValue('-2.5')

  // Type lengths in either unit; what was typed is kept as typed, a bare number gets the unit.
  await step(page, 'Spring')
  const height = page.getByRole('textbox', { name: 'Installed height' })
  await height.fill('46 mm')
  await height.press('Enter')
  await expect(height).toHaveValue('46 mm')
  await expect(page.getByText('1.811 in')).toBeVisible()
  await height.fill('1.790')
  await height.press('Enter')
  await expect(height).toHaveValue('1.790 in')

  // A refused value says so at its field and changes nothing.
  await height.fill('1.79 psi')
  await height.press('Enter')
  await expect(page.locator('[data-field$="installed_height"]').getByRole('alert')).toContainText(
    '"psi" is not a unit of this quantity',
  )
  await height.press('Escape')
  await expect(height).toHaveValue('1.790 in')

  // Undo twice, redo once.
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(height).toHaveValue('46 mm')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(height).toHaveValue('1.800 in')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(height).toHaveValue('46 mm')

  // Save, reload: the very place, the same text.
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await page.reload()
  await expect(page).toHaveTitle('A even keel · Tollgate 388 hauler · Spring · Upper Lobe')
  await expect(height).toHaveValue('46 mm')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await step(page, 'Events')
  await expect(event(page, 'Intake opens')).not.toHaveValue('-2.0')
  await page.goBack()
  await expect(height).toHaveValue('46 mm')
})

test('undo by keys goes back to the start and the build counts as saved again', async ({
  bench: page,
}) => {
  await drag(page, 'Intake closes', 20)
  await drag(page, 'Exhaust opens', 20)
  await expect(page.getByText('not saved')).toBeVisible()
  await page.locator('body').press('Control+z')
  await page.locator('body').press('Control+z')
  await expect(page.getByText('revision 1 saved')).toBeVisible()
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  await page.locator('body').press('Control+Shift+z')
  await expect(event(page, 'Intake closes')).not.toHaveValue('32.0')
})

test('edits made faster than answers come are all kept, in order', async ({ bench: page }) => {
  await page.route('**/api/workbench', async (route) => {
    await new Promise((resolve) => setTimeout(resolve, 150))
    await route.continue()
  })
  await step(page, 'Rocker')
  for (const [name, text] of [
    ['Ratio', '1.55'],
    ['Tip-side mass', '10 g'],
    ['Rated lift', '0.600 in'],
  ] as const) {
    await page.getByRole('textbox', { name, exact: true }).fill(text)
  }
  await page.getByRole('textbox', { name: 'Rated lift' }).press('Enter')
  await expect(page.getByRole('textbox', { name: 'Rated lift' })).toHaveValue('0.600 in')
  await expect(page.getByRole('textbox', { name: 'Ratio', exact: true })).toHaveValue('1.55')
  await expect(page.getByRole('textbox', { name: 'Tip-side mass' })).toHaveValue('10 g')
  for (let i = 0; i < 3; i += 1) await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})

test('a margin tells why, leads to the field that changes it, and a remedy can be tried and undone', async ({
  bench: page,
}) => {
  // A train that no other test has turned: where it was, the hand check is no more than advice.
  await step(page, 'Lifter')
  await page.getByRole('textbox', { name: 'Oil below plunger' }).fill('.213')
  await page.getByRole('textbox', { name: 'Oil below plunger' }).press('Enter')
  await expect(page.getByRole('textbox', { name: 'Oil below plunger' })).toHaveValue('0.213 in')
  const margin = page.getByRole('listitem').filter({ hasText: 'Valve float speed' })
  await expect(margin).toContainText('tight')
  await margin.getByRole('button', { name: /^Valve float speed/ }).click()
  await expect(margin).toContainText('What went into it')
  await expect(margin).toContainText('measured')
  await margin.getByRole('button', { name: /^Try Spring installed height/ }).click()
  await expect(margin).not.toContainText('tight')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(margin).toContainText('tight')
  await margin.getByRole('button', { name: 'Spring installed height', exact: true }).click()
  await expect(page.getByRole('textbox', { name: 'Installed height' })).toBeFocused()
})

test('the crank is scrubbed and the overlap zoomed by keys alone', async ({ bench: page }) => {
  const crank = page.getByRole('slider', { name: 'Crank angle' })
  await crank.focus()
  const readout = page.locator('.readout')
  const before = await readout.textContent()
  for (let i = 0; i < 5; i += 1) await page.keyboard.press('ArrowRight')
  await expect(page.locator('.cursor text').first()).toHaveText('377.0')
  expect(await readout.textContent()).not.toBe(before)
  await page.keyboard.press('+')
  await expect(handle(page, 'Exhaust opens')).toBeVisible({ visible: true })
  for (let i = 0; i < 6; i += 1) await page.keyboard.press('+')
  await expect(handle(page, 'Exhaust opens')).toHaveCount(0)
  await page.keyboard.press('0')
  await expect(handle(page, 'Exhaust opens')).toBeVisible()
})
