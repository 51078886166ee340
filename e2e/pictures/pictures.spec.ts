import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'

const folder = '../docs/screenshots'

async function open(page: Page): Promise<void> {
  await page.goto('/')
  await expect(page.getByRole('slider', { name: 'Crank angle' })).toBeVisible()
  await page.waitForTimeout(800)
}

test('the main views of the demo build', async ({ page }) => {
  await open(page)
  const moved = page.getByRole('textbox', { name: 'Intake closes, degrees' })
  await moved.fill('34')
  await moved.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Moved' })).toBeVisible()
  await page.screenshot({ path: `${folder}/events.png` })

  await page.getByRole('button', { name: 'B later closing' }).click()
  await page.getByText('overlap', { exact: true }).click()
  await page.getByRole('button', { name: /^Intake valve to piston/ }).click()
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/overlap.png` })

  await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: /^Lobe/ }).click()
  await page.getByText('whole cycle', { exact: true }).click()
  await page.setViewportSize({ width: 1280, height: 1000 })
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/lobe.png` })
})

test('in the dark', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await open(page)
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: /^Spring/ }).click()
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/spring-dark.png` })
})

test('at 768 pixels', async ({ page }) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  await open(page)
  await page.screenshot({ path: `${folder}/narrow.png` })
})
