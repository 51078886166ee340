import type { Locator, Page } from '@playwright/test'
import { expect, test as base } from '@playwright/test'
import { readFileSync } from 'node:fs'

export const DEMO = readFileSync(
  new URL('../../demo/tollgate-388-hauler.json', import.meta.url),
  'utf8',
)

/** The same without a firing order: one cylinder by itself, whose curves take a tenth of the time. */
export const ALONE = DEMO.replace(/"firing_order": \[[^\]]*\],\s*/, '')

/** The steps of the work in their order. */
export const STEPS = [
  'Plan',
  'Engine',
  'Events',
  'Lobe',
  'Lifter',
  'Rocker',
  'Pushrod',
  'Spring',
  'Control',
  'Clearance',
  'Torque',
  'Choose',
  'Decide',
  'Order',
  'Bench',
  'Dyno',
]

/** A page on a fresh copy of the demo build, and the console's complaints about it. */
export const test = base.extend<{ bench: Page; complaints: string[]; document: string }>({
  document: [DEMO, { option: true }],
  complaints: async ({ page }, use) => {
    const complaints: string[] = []
    page.on('console', (message) => {
      if (message.type() === 'error') complaints.push(message.text())
    })
    page.on('pageerror', (error) => complaints.push(error.message))
    await use(complaints)
  },
  bench: async ({ page, request, complaints, document }, use) => {
    const made = await request.post('/api/builds', { data: { document } })
    const { id } = (await made.json()) as { id: number }
    await page.goto(`/#/build/${id}`)
    await expect(event(page, 'Intake closes')).toHaveValue('32.0')
    await use(page)
    // A refused edit is a 422 by design; everything else is a defect, policy violations above all.
    expect(
      complaints.filter(
        (text) =>
          !text.includes('422') &&
          !text.includes('ERR_CONNECTION') &&
          !text.includes('409') &&
          !text.includes('ERR_FAILED'),
      ),
    ).toEqual([])
  },
})

export { expect }

export function event(page: Page, name: string) {
  return page.getByRole('textbox', { name: `${name}, degrees` })
}

export function handle(page: Page, name: string) {
  return page.getByRole('slider', { name: `${name} at .050` })
}

/** Drags a handle sideways by so many pixels in steps, as a hand does. */
export async function drag(page: Page, name: string, pixels: number): Promise<void> {
  const box = await handle(page, name).boundingBox()
  if (!box) throw new Error(`${name} is not on screen`)
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let step = 1; step <= 12; step += 1) await page.mouse.move(x + (pixels * step) / 12, y)
  await page.mouse.up()
}

/** Shows the margins that are met. */
export async function unfold(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^\d+ met/ }).click()
}

/** Goes to a step of the work. */
export async function step(page: Page, name: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click()
  await expect(page.getByRole('heading', { level: 1, name: new RegExp(`^${name}`) })).toBeVisible()
}

/** Begins an empty build from the open drawer of builds. */
export async function beginEmpty(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Begin a build' }).click()
  const dialog = page.getByRole('dialog', { name: 'Begin a build' })
  await dialog.getByRole('textbox', { name: 'Name of the new build' }).fill(name)
  await dialog.getByRole('button', { name: /^Empty instead/ }).click()
  await expect(page.locator('.build-button')).toContainText(name)
}

/** Pastes a text where the focus is, as a spreadsheet's clipboard gives it. */
export async function paste(page: Page, target: Locator, text: string): Promise<void> {
  await target
    .locator('input')
    .first()
    .evaluate((element, content) => {
      const data = new DataTransfer()
      data.setData('text/plain', content)
      element.dispatchEvent(
        new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
      )
    }, text)
  await page.waitForTimeout(50)
}
