import { expect, test } from '@playwright/test'
import { event, step } from './screen'
import { kill, ownDatabase, serve } from './servers'

const PORT = 8136

test.use({ baseURL: `http://127.0.0.1:${PORT}` })

test('the server is killed under an open page: what was saved is there, what was not is still in the tab', async ({
  page,
}) => {
  const database = ownDatabase()
  let server = await serve(PORT, '--database', database, '--demo')
  page.on('dialog', (dialog) => void dialog.accept())
  await page.goto('/')
  await event(page, 'Intake closes').fill('35')
  await event(page, 'Intake closes').press('Enter')
  await page.locator('body').press('Control+s')
  await expect(page.getByText('revision 2 saved')).toBeVisible()
  await event(page, 'Exhaust opens').fill('50')
  await event(page, 'Exhaust opens').press('Enter')
  await expect(page.getByText('not saved')).toBeVisible()

  await kill(server)
  await event(page, 'Intake opens').fill('3')
  await event(page, 'Intake opens').press('Enter')
  await expect(page.getByText('The server does not answer')).toBeVisible()
  await expect(event(page, 'Intake opens')).toHaveValue('3')

  server = await serve(PORT, '--database', database)
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByText('The server does not answer')).toHaveCount(0)
  await page.reload()
  await expect(page.getByText('Edits of this tab that were not saved are here again')).toBeVisible()
  await expect(event(page, 'Intake closes')).toHaveValue('35.0')
  await expect(event(page, 'Exhaust opens')).toHaveValue('50.0')
  await page.locator('body').press('Control+s')
  await expect(page.getByText('revision 3 saved')).toBeVisible()
  await kill(server)

  server = await serve(PORT, '--database', database, '--read-only')
  await page.reload()
  await expect(page.getByText('This database may only be read')).toBeVisible()
  await expect(event(page, 'Exhaust opens')).toHaveValue('50.0')
  await step(page, 'Engine')
  await page.getByRole('textbox', { name: 'Bore', exact: true }).fill('4.1')
  await page.keyboard.press('Enter')
  await expect(page.getByText('not saved')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save', exact: true })).toBeDisabled()
  await kill(server)
})
