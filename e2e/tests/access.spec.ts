import AxeBuilder from '@axe-core/playwright'
import { expect, test } from './screen'

for (const scheme of ['light', 'dark'] as const) {
  test(`no serious accessibility finding on any step, ${scheme}`, async ({ bench: page }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' })
    await page.reload()
    for (const step of ['Events', 'Engine', 'Lobe', 'Spring']) {
      await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: new RegExp(`^${step}`) }).click()
      const margin = page.getByRole('button', { name: /^Trapped compression/ })
      await margin.click()
      const { violations } = await new AxeBuilder({ page }).analyze()
      const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
      expect(serious.map((v) => `${step}: ${v.id} ${v.nodes.slice(0, 3).map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual([])
      await margin.click()
    }
  })
}

test('nothing overflows sideways at 768 pixels', async ({ bench: page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  await expect(page.getByRole('slider', { name: 'Crank angle' })).toBeVisible()
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
  expect(overflow).toBeLessThanOrEqual(0)
})
