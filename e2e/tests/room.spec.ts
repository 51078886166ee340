import type { Page } from '@playwright/test'
import { drag, event, expect, handle, step, STEPS, test } from './screen'

/** Share of the window that the step at hand has, per cent. */
function roomOf(page: Page): Promise<number> {
  return page.locator('section.step').evaluate((step) => {
    const { left, right, top, bottom } = step.getBoundingClientRect()
    const across = Math.min(right, innerWidth) - Math.max(left, 0)
    const down = Math.min(bottom, innerHeight) - Math.max(top, 0)
    return (100 * across * down) / (innerWidth * innerHeight)
  })
}

test('every step has room, and bar, way and margins stay while it is scrolled', async ({
  bench: page,
}) => {
  for (const name of STEPS) {
    await step(page, name)
    expect(await roomOf(page), name).toBeGreaterThan(38)
  }
  await step(page, 'Engine')
  await page.getByRole('textbox', { name: 'Bore', exact: true }).hover()
  await page.mouse.wheel(0, 5000)
  await expect(page.getByRole('heading', { level: 1, name: 'Engine' })).not.toBeInViewport()
  await expect(page.getByRole('banner')).toBeInViewport()
  await expect(page.getByRole('button', { name: /^Plan/ })).toBeInViewport()
  await expect(page.getByRole('heading', { name: 'Margins' })).toBeInViewport()
  await expect(handle(page, 'Intake closes')).toBeInViewport()
})

test('the slim strip can be dragged and made tall by click or key, and each step keeps its own', async ({
  bench: page,
}) => {
  await step(page, 'Spring')
  const readings = page.locator('.readout')
  await expect(readings).toHaveCount(0)
  await drag(page, 'Intake closes', 20)
  await page.getByRole('button', { name: 'tall strip' }).click()
  await expect(readings).toBeVisible()
  await step(page, 'Events')
  await expect(event(page, 'Intake closes')).not.toHaveValue('32.0')
  await page.keyboard.press('Alt+s')
  await expect(readings).toHaveCount(0)
  await page.keyboard.press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await page.reload()
  await expect(event(page, 'Intake closes')).toBeVisible()
  await expect(readings).toHaveCount(0)
  await step(page, 'Spring')
  await expect(readings).toBeVisible()
})

test('on a narrow screen the margins are a count and a drawer', async ({ bench: page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  await page.getByRole('button', { name: /^Margins: .*\d+ ok/ }).click()
  const drawer = page.getByRole('dialog', { name: 'Margins' })
  await drawer.getByRole('button', { name: /^\d+ met/ }).click()
  await drawer.getByRole('button', { name: /^Dynamic compression/ }).click()
  await expect(drawer.getByText('What went into it')).toBeVisible()
})
