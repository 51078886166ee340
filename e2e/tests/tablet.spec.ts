import type { ChildProcess } from 'node:child_process'
import AxeBuilder from '@axe-core/playwright'
import type { Browser, Page } from '@playwright/test'
import { expect, test } from '@playwright/test'
import { event, step } from './screen'
import { kill, ownDatabase, serve } from './servers'

const PORT = 8134
const AT = `https://127.0.0.1:${PORT + 1}`
const database = ownDatabase()

let server: ChildProcess

const start = (...more: string[]) =>
  serve(
    PORT,
    ...['--database', database, '--lan', '127.0.0.1', '--lan-port', String(PORT + 1), ...more],
  )

test.use({ baseURL: `http://127.0.0.1:${PORT}` })
test.describe.configure({ mode: 'serial' })
test.beforeAll(async () => {
  server = await start('--demo')
})
test.afterAll(async () => {
  await kill(server)
})

/** Has the main screen show a code for a role; the link in it. */
async function shownLink(page: Page, role: string): Promise<string> {
  await page.getByRole('button', { name: /^More/ }).click()
  await page.getByRole('menuitem', { name: 'Devices of the shop' }).click()
  const drawer = page.getByRole('dialog', { name: 'Devices of the shop' })
  await drawer.getByText(role, { exact: true }).first().click()
  return shownAgain(page)
}

/** A tablet of its own that was paired by the link. */
async function tablet(browser: Browser, link: string, name: string): Promise<Page> {
  const context = await browser.newContext({
    ignoreHTTPSErrors: true,
    viewport: { width: 768, height: 1024 },
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  await page.goto(link)
  await page.getByRole('textbox', { name: 'What the shop calls this device' }).fill(name)
  await page.getByRole('button', { name: 'Pair' }).click()
  await expect(page.getByRole('heading', { name: 'Pair this device' })).toHaveCount(0)
  return page
}

/** Serious accessibility findings on what is on screen. */
async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page }).analyze()
  return found.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id)
}

const bar = (page: Page) => page.getByRole('form', { name: 'Next reading' })

async function read(page: Page, ...texts: string[]): Promise<void> {
  const cells = bar(page).locator('.next-cells input')
  for (const [at, text] of texts.entries()) await cells.nth(at).fill(text)
  await cells.nth(texts.length - 1).press('Enter')
}

test('readings wait in the tablet while the server is away, arrive once and in order, and the main screen follows', async ({
  page,
  browser,
}) => {
  await page.goto('/')
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  const one = await tablet(browser, await shownLink(page, 'Readings'), 'Bench tablet')
  // It is listed, and its code is good no more.
  const drawer = page.getByRole('dialog', { name: 'Devices of the shop' })
  await expect(drawer.getByRole('row', { name: /^Bench tablet/ })).toContainText('Readings')
  await expect(drawer.getByText(/The code is good no more/)).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(drawer).toHaveCount(0)

  // A tablet for readings begins where they are taken.
  await one.getByRole('combobox', { name: 'What is measured' }).click()
  await one.getByTitle('Rocker mass', { exact: true }).click()
  await one.getByRole('button', { name: 'Begin another' }).click()
  await expect(bar(one)).toContainText('rocker 1')
  await read(one, '70', '21')
  await expect(bar(one)).toContainText('rocker 2')
  await expect(one.getByText('Every reading is kept')).toBeVisible()

  await kill(server)
  await read(one, '71', '22')
  await expect(one.getByText('No connection: 1 reading waits')).toBeVisible()
  await expect(bar(one)).toContainText('rocker 3')
  await read(one, '72', '23')
  await expect(one.getByText('No connection: 2 readings wait')).toBeVisible()
  // One that was mistyped is taken back before it ever left.
  await read(one, '99', '24')
  await expect(bar(one)).toContainText('Everything that is asked for was read')
  await one.getByRole('button', { name: 'Take back' }).click()
  await expect(bar(one)).toContainText('rocker 4')
  server = await start()
  await expect(one.getByText('Every reading is kept')).toBeVisible()
  await expect(bar(one)).toContainText('rocker 4')

  // The main screen has them all, in order, without a reload.
  await step(page, 'Bench')
  const at = page.getByRole('region', { name: 'At the bench' })
  await at.getByRole('button', { name: /^Rocker mass/ }).click()
  await expect(at.getByRole('table', { name: 'What was read' })).toContainText('71 g')
  await expect(page.getByText(/^revision 5 saved/)).toBeVisible()
  const [newest] = (await (await page.request.get('/api/builds')).json()) as { id: number }[]
  const opened = await page.request.get(`/api/builds/${String(newest?.id)}`)
  const kept = (await opened.json()) as { document: string }
  const { bench } = JSON.parse(kept.document) as { bench: { masses: string[][] }[] }
  expect(bench[0]?.masses.map((row) => row[1])).toEqual(['70 g', '71 g', '72 g'])
  await one.context().close()
})

test('two tablets on one session lose nothing; a reading that cannot be is said where it was typed', async ({
  page,
  browser,
}) => {
  await page.goto('/')
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  const one = await tablet(browser, await shownLink(page, 'Readings'), 'Left tablet')
  const two = await tablet(browser, await shownAgain(page), 'Right tablet')
  await one.getByRole('combobox', { name: 'What is measured' }).click()
  await one.getByTitle('Decks', { exact: true }).click()
  await one.getByRole('button', { name: 'Begin another' }).click()
  // The other one stays at its own session until it turns to this one.
  await two
    .getByRole('navigation', { name: 'Sessions' })
    .getByRole('button', { name: 'Decks' })
    .click()
  for (const each of [one, two]) await expect(bar(each)).toContainText('1 of 8')
  await read(one, 'eight')
  await expect(bar(one).getByRole('alert')).toContainText('eight')
  await read(one, '.008')
  await expect(bar(two)).toContainText('2 of 8')
  await read(two, '.009')
  await expect(bar(one)).toContainText('3 of 8')
  // What the other one took is not taken back unseen.
  await one.context().setOffline(true)
  await read(two, '.0085')
  await expect(bar(two)).toContainText('4 of 8')
  await one.getByRole('button', { name: 'Take back' }).click()
  await expect(one.getByText('No connection: 1 reading waits')).toBeVisible()
  await one.context().setOffline(false)
  await expect(one.getByRole('alert').filter({ hasText: 'in between' })).toBeVisible()
  await expect(bar(one)).toContainText('4 of 8')

  // Shut out, it is out at once.
  const drawer = page.getByRole('dialog', { name: 'Devices of the shop' })
  await drawer.getByRole('button', { name: 'Shut Left tablet out' }).click()
  await page.getByRole('button', { name: 'Shut out', exact: true }).last().click()
  await expect(drawer.getByRole('row', { name: /^Left tablet/ })).toContainText('shut out')
  await expect(drawer.getByRole('table', { name: 'What they changed' })).toContainText(
    /Right tablet.*took readings into build/s,
  )
  await expect(one.getByRole('heading', { name: 'Pair this device' })).toBeVisible()
  await expect(bar(two)).toContainText('4 of 8')
  for (const each of [one, two]) await each.context().close()
})

/** The next code from the open drawer. */
async function shownAgain(page: Page): Promise<string> {
  const drawer = page.getByRole('dialog', { name: 'Devices of the shop' })
  await drawer.getByRole('button', { name: 'Show a code' }).click()
  const link = drawer.getByRole('img', { name: /^Link / })
  await expect(link).toBeVisible()
  return ((await link.getAttribute('alt')) ?? '').replace('Link ', '')
}

test('a device that looks sees everything and keeps nothing; a wrong code lets nobody in', async ({
  page,
  browser,
}) => {
  await page.goto('/')
  await expect(event(page, 'Intake closes')).toHaveValue('32.0')
  const link = await shownLink(page, 'Look')
  const stranger = await (await browser.newContext({ ignoreHTTPSErrors: true })).newPage()
  await stranger.goto(AT)
  await stranger.getByRole('textbox', { name: 'Code' }).fill('ABCD-EFGH')
  await stranger.getByRole('textbox', { name: 'What the shop calls this device' }).fill('Stranger')
  await stranger.getByRole('button', { name: 'Pair' }).click()
  await expect(stranger.getByRole('alert')).toContainText('not the code on the main screen')
  for (const each of [stranger, page]) await expect.poll(() => violations(each)).toEqual([])
  await stranger.close()
  const wall = await tablet(browser, link, 'Wall')
  await expect(event(wall, 'Intake closes')).toHaveValue('32.0')
  await event(wall, 'Intake closes').fill('35')
  await event(wall, 'Intake closes').press('Enter')
  await expect(wall.getByText('not saved')).toBeVisible()
  await expect(wall.getByRole('button', { name: 'Save', exact: true })).toBeDisabled()
  await wall.keyboard.press('Control+s')
  await expect(wall.getByText(/Wall is paired for .look.: it may not do that/)).toBeVisible()
  await wall.getByRole('button', { name: /^More/ }).click()
  await expect(wall.getByRole('menuitem', { name: 'Devices of the shop' })).toHaveCount(0)
  await wall.context().close()
})
