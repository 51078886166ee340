import { beginMarine, printOrder } from './hand'
import { expect, test } from './screen'

test.slow()

test('from nothing to a chosen cam and its printed order', async ({ bench: page }) => {
  const began = Date.now()
  const hand = await beginMarine(page)
  await hand.click('button', /^Choose/)
  const choice = page.locator('.proposals tbody tr').filter({ hasText: 'By the events' })
  await expect(choice).toBeVisible({ timeout: 120_000 })
  // What the events come to at first look is looked at closer before anybody orders it.
  await expect(choice).not.toContainText('at first look', { timeout: 240_000 })
  await expect(choice).toContainText('all hold')
  await expect(choice).toContainText(/\+\d\.\d\d %/)
  const waited = Date.now() - began
  hand.clicks += 1
  await choice.getByRole('button', { name: /^By the events/ }).click()
  await expect(page.locator('.because')).toContainText('Intake closing')
  hand.clicks += 1
  await choice.getByRole('button', { name: 'Keep as candidate' }).click()
  await expect(page.getByRole('button', { name: 'By the events', exact: true })).toBeVisible()
  await hand.click('button', /^Decide/)
  await expect(page.locator('.answer')).toContainText(/(more|less) than|within what can be told/, {
    timeout: 120_000,
  })
  await printOrder(page, hand)
  await expect(page.getByRole('article', { name: 'Order card' })).toContainText('By the events')
  console.log(
    `chosen: ${hand.clicks} clicks, ${hand.fields} fields, ${((Date.now() - began) / 60_000).toFixed(1)} min, ${(waited / 60_000).toFixed(1)} of it until the schools had their say`,
  )
  expect(hand.clicks).toBeLessThanOrEqual(12)
  expect(hand.fields).toBeLessThanOrEqual(16)
})
