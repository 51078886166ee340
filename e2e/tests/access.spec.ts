import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { event, expect, step, STEPS, test, unfold } from './screen'

const GROUPS = [STEPS.slice(0, 3), STEPS.slice(3, 6), STEPS.slice(6, 9), STEPS.slice(9)]
const SCHEMES = ['light', 'dark'] as const
type Scheme = (typeof SCHEMES)[number]

/**
 * Fails with every serious finding on what is on screen, or on a part of it: bar, rail and strip are looked at once and not
 * again at every step. The dark page differs from the light one in its colours alone.
 */
async function serious(page: Page, view: string, scheme: Scheme, part?: string): Promise<void> {
  // What still fades in has not got its contrast yet.
  await page.evaluate(() =>
    Promise.all(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
        .map((a) => a.finished.catch(() => undefined)),
    ),
  )
  const axe = new AxeBuilder({ page }).options({
    resultTypes: ['violations'],
    ...(scheme === 'dark' ? { runOnly: ['color-contrast'] } : {}),
  })
  if (part !== undefined) axe.include(part)
  const { violations } = await axe.analyze()
  const found = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical')
  expect(
    found.map(
      (v) =>
        `${view}: ${v.id} ${v.nodes
          .slice(0, 3)
          .map((n) => n.html.slice(0, 160))
          .join(' | ')}`,
    ),
  ).toEqual([])
}

async function dressed(page: Page, scheme: Scheme): Promise<void> {
  await page.emulateMedia({ colorScheme: scheme })
  await page.reload()
  await expect(event(page, 'Intake closes')).toBeVisible()
}

for (const scheme of SCHEMES) {
  for (const group of GROUPS) {
    test(`no serious accessibility finding on ${group.join(', ')}, ${scheme}`, async ({
      bench: page,
    }) => {
      await dressed(page, scheme)
      for (const name of group) {
        await step(page, name)
        if (name === STEPS[0]) {
          await unfold(page)
          await page.getByRole('button', { name: /^Dynamic compression/ }).click()
          await serious(page, 'the whole', scheme)
        } else {
          await serious(page, name, scheme, 'section.step')
        }
      }
    })
  }

  test(`no serious accessibility finding on what opens above the work, ${scheme}`, async ({
    bench: page,
  }) => {
    await dressed(page, scheme)
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('combobox', { name: /^Find a step/ })).toBeVisible()
    await serious(page, 'palette', scheme, '[role=dialog]')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Keys and words' }).click()
    await expect(page.getByText('the steps of the work in their order')).toBeVisible()
    await serious(page, 'keys and words', scheme, '[role=dialog]')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: /^Builds; open now/ }).click()
    await expect(page.getByRole('textbox', { name: 'Find a build' })).toBeVisible()
    await serious(page, 'builds', scheme, '[role=dialog]')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: /^More/ }).click()
    await page.getByText('Build sheet, to print').click()
    await expect(page.getByRole('button', { name: 'Print', exact: true })).toBeVisible()
    await expect(page.getByText('Build sheet, to print')).toBeHidden()
    await serious(page, 'sheet', scheme, '.sheet')
  })

  test(`no serious accessibility finding on the parts shelf, ${scheme}`, async ({
    bench: page,
  }) => {
    await dressed(page, scheme)
    await step(page, 'Spring')
    await page.getByRole('button', { name: 'From the shelf: springs' }).click()
    await expect(page.getByRole('textbox', { name: 'Find a part' })).toBeVisible()
    await serious(page, 'shelf', scheme, '[role=dialog]')
    await page.locator('.shelf-list button').first().click()
    await expect(page.getByText('What it drags along')).toBeVisible()
    await serious(page, 'a part tried', scheme, '[role=dialog]')
  })
}

test('nothing overflows sideways at 768 pixels', async ({ bench: page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  for (const name of STEPS) {
    await step(page, name)
    const overflow = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    )
    expect(overflow, name).toBeLessThanOrEqual(0)
  }
})
