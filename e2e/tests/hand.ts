import type { Locator, Page } from '@playwright/test'
import { expect } from './screen'

/** Counts what a hand does: clicks, and fields typed into. */
export class Hand {
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

  /** Clicks something that was found already. */
  async press(target: Locator): Promise<void> {
    this.clicks += 1
    await target.click()
  }

  /** Chooses of a list that opens: two clicks. */
  async choose(list: Locator, title: string): Promise<void> {
    await this.press(list)
    await this.press(this.page.getByTitle(title, { exact: true }).last())
  }

  /** Types into something that was found already. */
  async fill(target: Locator, text: string, key = 'Enter'): Promise<void> {
    this.fields += 1
    await target.fill(text)
    await target.press(key)
  }

  async type(name: string, text: string, key = 'Tab'): Promise<void> {
    this.fields += 1
    const field = this.page.getByRole('textbox', { name, exact: true }).first()
    await field.fill(text)
    await field.press(key)
  }
}

/** A marine V8 from nothing, its springs as the tester read them. */
export async function beginMarine(page: Page): Promise<Hand> {
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
  return hand
}

/** The order of the candidate in view, printed. */
export async function printOrder(page: Page, hand: Hand): Promise<void> {
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
}
