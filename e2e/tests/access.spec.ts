import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, step, test } from './screen'

const STEPS = ['Plan', 'Engine', 'Events', 'Lobe', 'Lifter', 'Rocker', 'Pushrod', 'Spring', 'Clearance', 'Torque', 'Compare']

/** Fails with every serious finding on what is on screen. */
async function serious(page: Page, view: string): Promise<void> {
  // What still fades in has not got its contrast yet.
  await page.evaluate(() => Promise.all(document.getAnimations().filter((a) => a.effect?.getComputedTiming().iterations !== Infinity).map((a) => a.finished.catch(() => undefined))))
  const { violations } = await new AxeBuilder({ page }).analyze()
  const found = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  expect(found.map((v) => `${view}: ${v.id} ${v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual([])
}

for (const scheme of ['light', 'dark'] as const) {
  test(`no serious accessibility finding on any view, ${scheme}`, async ({ bench: page }) => {
    test.setTimeout(240_000)
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    await page.reload()
    for (const name of STEPS) {
      await step(page, name)
      const margin = page.getByRole('button', { name: /^Dynamic compression/ })
      await margin.click()
      await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible()
      await serious(page, name)
      await margin.click()
    }
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('combobox', { name: /^Find a step/ })).toBeVisible()
    await serious(page, 'palette')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Keys and words' }).click()
    await expect(page.getByText('the steps of the work in their order')).toBeVisible()
    await serious(page, 'keys and words')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: /^Builds; open now/ }).click()
    await expect(page.getByRole('textbox', { name: 'Find a build' })).toBeVisible()
    await serious(page, 'builds')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: /^More/ }).click()
    await page.getByText('Build sheet, to print').click()
    await expect(page.getByRole('button', { name: 'Print' })).toBeVisible()
    await expect(page.getByText('Build sheet, to print')).toBeHidden()
    await serious(page, 'sheet')
  })

  test(`no serious accessibility finding on the parts shelf, ${scheme}`, async ({ bench: page }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    await page.reload()
    await step(page, 'Spring')
    await page.getByRole('button', { name: 'From the shelf: springs' }).click()
    await expect(page.getByRole('textbox', { name: 'Find a part' })).toBeVisible()
    await serious(page, 'shelf')
    await page.locator('.shelf-list button').first().click()
    await expect(page.getByText('What it drags along')).toBeVisible()
    await serious(page, 'a part tried')
  })
}

test('nothing overflows sideways at 768 pixels', async ({ bench: page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  for (const name of STEPS) {
    await step(page, name)
    const overflow = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
    expect(overflow, name).toBeLessThanOrEqual(0)
  }
})
