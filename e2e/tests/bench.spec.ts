import type { Page } from '@playwright/test'
import { expect, step, test } from './screen'

/** Types a reading and waits until it is the document's. */
async function read(page: Page, label: string, text: string, shown: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label, exact: true }).first()
  await field.fill(text)
  await field.press('Enter')
  await expect(field).toHaveValue(shown)
}

async function unfold(page: Page, title: string): Promise<void> {
  await page.locator('summary', { hasText: title }).click()
}

test('what the bench reads becomes fields, with its doubt, in one step of undo', async ({
  bench,
}) => {
  await step(bench, 'Engine')
  await unfold(bench, 'By burette')
  await unfold(bench, 'Intake valve by gauge and dial')
  await read(bench, 'Chamber by burette', '71.4', '71.4 cc')
  await read(bench, 'Valve height', '.068', '0.068 in')
  await read(bench, 'Drop to piston', '.240', '0.240 in')
  const says = bench.getByRole('region', { name: 'What the bench reads' })
  await expect(says.getByRole('row', { name: /^Chamber/ })).toContainText('71.4 cc ± 0.3 cc')
  await expect(says.getByRole('row', { name: /^Intake face recess/ })).toContainText('differs')
  await expect(says.getByRole('row', { name: /^Intake pocket depth/ })).toContainText(
    'with the lowest edge .068 in',
  )
  await expect(
    bench.getByText(/the bench read other figures than those computed with/),
  ).toBeVisible()

  await says.getByRole('button', { name: 'Take them all' }).click()
  const chamber = bench.getByRole('textbox', { name: 'Chamber', exact: true })
  await expect(chamber).toHaveValue('71.4 cc')
  await expect(says.getByText('differs')).toHaveCount(0)
  await expect(bench.getByText(/the bench read other figures/)).toBeHidden()
  await expect(bench.getByRole('button', { name: 'Source of Chamber: measured' })).toBeVisible()
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(chamber).toHaveValue('70.5 cc')
  await expect(says.getByRole('row', { name: /^Intake face recess/ })).toContainText('differs')
})

test('a reading that cannot be so says where to look, and Find knows the words', async ({
  bench,
}) => {
  await step(bench, 'Engine')
  await unfold(bench, 'Intake valve by gauge and dial')
  await read(bench, 'Drop to piston', '2.9', '2.9 in')
  const says = bench.getByRole('region', { name: 'What the bench reads' })
  await expect(says).toContainText('more than any depth leaves')
  for (const [word, found] of [
    ['clay', 'Exhaust clay floor'],
    ['burette', 'Chamber by burette'],
    ['drop', 'Intake drop to piston'],
    ['valve height', 'Exhaust valve height'],
  ] as const) {
    await bench.getByRole('button', { name: 'Find anything' }).click()
    await bench.getByRole('combobox', { name: /^Find a step/ }).fill(word)
    await expect(bench.getByRole('dialog').getByText(found).first()).toBeVisible()
    await bench.keyboard.press('Escape')
  }
})
