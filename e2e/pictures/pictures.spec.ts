import { expect, test } from '@playwright/test'
import type { Page } from '@playwright/test'
import { DEMO, event, step } from '../tests/screen'

const folder = '../docs/screenshots'

async function open(page: Page): Promise<void> {
  // As who has been here before.
  await page.addInitScript(() => localStorage.setItem('upper-lobe.visited', 'yes'))
  await page.goto('/')
  await expect(page.getByRole('slider', { name: 'Crank angle' })).toBeVisible()
  await page.waitForTimeout(800)
}

async function shot(page: Page, name: string): Promise<void> {
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/${name}.png` })
}

test('the main views of the demo build', async ({ page }) => {
  test.setTimeout(240_000)
  await open(page)
  await event(page, 'Intake closes').fill('34')
  await event(page, 'Intake closes').press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Moved' })).toBeVisible()
  await shot(page, 'events')

  await page.getByRole('button', { name: 'B later closing' }).click()

  await page.getByRole('button', { name: /^Candidate: duplicate/ }).click()
  await page.getByText('Lay A even keel beside').click()
  await step(page, 'Decide')
  await expect(page.locator('.answer')).toContainText('C flat', { timeout: 60_000 })
  await expect(page.getByText(/^Drafting/)).toHaveCount(0, { timeout: 60_000 })
  await page.setViewportSize({ width: 1280, height: 1100 })
  await shot(page, 'decide')
  await page.setViewportSize({ width: 1280, height: 800 })
  await step(page, 'Events')
  await page.getByRole('button', { name: 'off', exact: true }).click()

  await page.setViewportSize({ width: 1280, height: 1200 })
  await step(page, 'Engine')
  await shot(page, 'engine')
  await step(page, 'Lobe')
  await shot(page, 'lobe')
  await step(page, 'Control')
  await expect(page.getByText('solid lifter at zero lash')).toBeVisible({ timeout: 120_000 })
  await shot(page, 'control')
})

test('a beginning and an end', async ({ page }) => {
  await open(page)
  await page.getByRole('button', { name: /^Builds; open now/ }).click()
  await page.getByRole('button', { name: 'Begin a build' }).click()
  await page.getByRole('textbox', { name: 'Name of the new build' }).fill('Pier nine')
  await page.getByRole('radio', { name: 'marine' }).click()
  await page.getByRole('textbox', { name: 'Bore', exact: true }).fill('4.040')
  await page.getByRole('textbox', { name: 'Stroke' }).fill('3.75')
  await page.getByRole('textbox', { name: 'Rod length' }).focus()
  await page.getByText(/^First cam by card rules/).click()
  await shot(page, 'begin')
  await page.keyboard.press('Escape')
  await page.setViewportSize({ width: 1280, height: 1100 })
  await step(page, 'Order')
  await shot(page, 'order')
})

test('running lift', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 1200 })
  await open(page)
  await step(page, 'Rocker')
  await page.getByRole('slider', { name: /valve lift/ }).fill('0.5')
  await shot(page, 'rocker')
})

test('a part tried', async ({ page }) => {
  await open(page)
  await step(page, 'Rocker')
  await page.getByRole('button', { name: 'From the shelf: rockers' }).click()
  await page.locator('.shelf-list button', { hasText: 'Aluminium stud roller 1.65' }).click()
  await expect(page.getByText('What it drags along')).toBeVisible()
  await shot(page, 'shelf')
})

test('in the dark', async ({ page }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await open(page)
  await step(page, 'Spring')
  await shot(page, 'spring-dark')
})

test('at the bench, and beside the engine at 768 pixels', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 900 })
  await open(page)
  await step(page, 'Bench')
  const at = page.getByRole('region', { name: 'At the bench' })
  await at.getByRole('button', { name: 'Begin' }).click()
  const wheel = at.getByRole('textbox', { name: 'Wheel', exact: true })
  for (const [place, text] of ['5', '215', '47'].entries()) {
    await expect(at.getByText(`${String(place + 1)} of 4`)).toBeVisible()
    await wheel.fill(text)
    await wheel.press('Enter')
  }
  await expect(at.getByText(/^Taken, \d+ margins move/)).toBeVisible({ timeout: 60_000 })
  await shot(page, 'bench')
  await page.setViewportSize({ width: 768, height: 1024 })
  await at.getByRole('button', { name: 'Large, beside the engine' }).click()
  await expect(page.getByText(/^Taken, \d+ margins move/)).toBeVisible({ timeout: 60_000 })
  await shot(page, 'narrow')
})

test('torque and power', async ({ page }) => {
  test.setTimeout(120_000)
  await open(page)
  await step(page, 'Torque')
  await page.getByLabel('other candidates').check()
  await expect(page.getByText(/^full: all cylinders/)).toBeVisible({ timeout: 60_000 })
  await page.setViewportSize({ width: 1280, height: 1200 })
  await shot(page, 'torque')
})

test('how near is too near', async ({ page }) => {
  test.setTimeout(200_000)
  await open(page)
  await step(page, 'Clearance')
  await page.setViewportSize({ width: 1280, height: 1300 })
  const view = (name: string) =>
    page
      .getByRole('radiogroup', { name: 'How near is looked at' })
      .getByText(name, { exact: true })
      .click()
  await view('At speed')
  const speed = page.getByRole('region', { name: 'Valve to piston at speed' })
  await expect(speed.locator('canvas')).toBeVisible()
  await shot(page, 'at-speed')
  await view('How likely')
  const likely = page.getByRole('region', { name: 'How likely limits fail' })
  await expect(likely).toHaveAttribute('aria-busy', 'false', { timeout: 120_000 })
  await shot(page, 'tolerances')
})

/** The demo with a day on the dyno: its own pull three times, a second candidate's made up beside it, its own again. */
function aDay(): string {
  const demo = JSON.parse(DEMO) as { name: string; pull: { points: [string, string][] } }
  const base = demo.pull.points.map(([rpm, torque]): [number, number] => [
    parseFloat(rpm),
    parseFloat(torque),
  ])
  const pull = (nth: number, candidate: string) => {
    const of = (rpm: number, torque: number) => {
      const more = candidate === 'b' ? 0.02 * Math.tanh((rpm - 4000) / 700) : 0
      const chance = 0.002 * Math.sin(7.3 * nth) + 0.0015 * Math.sin(rpm / 37 + 3 * nth)
      return torque * (1 + more + chance - 0.0006 * nth)
    }
    const points = base.flatMap(([rpm, torque], i) => {
      const next = base[i + 1]
      if (!next) return [[rpm, torque]]
      return [0, 0.25, 0.5, 0.75].map((t) => [
        rpm + t * (next[0] - rpm),
        torque + t * (next[1] - torque),
      ])
    })
    const texts = points.map(([rpm = 0, torque = 0]) => [
      `${String(rpm)} rpm`,
      `${of(rpm, torque).toFixed(1)} lbf ft`,
    ])
    return { id: `p${String(nth)}`, candidate, day: '2026-03-09', drawn: nth, points: texts }
  }
  const pulls = ['a', 'a', 'a', 'b', 'b', 'b', 'a', 'a', 'a'].map((of, i) => pull(i + 1, of))
  const { pull: single, ...rest } = demo
  return JSON.stringify({
    ...rest,
    name: `${demo.name}, a day on the dyno`,
    pulls,
    notes: single ? 'Invented.' : '',
  })
}

test('on the dyno', async ({ page, request }) => {
  const made = await request.post('/api/builds', { data: { document: aDay() } })
  const { id } = (await made.json()) as { id: number }
  await page.setViewportSize({ width: 1280, height: 1100 })
  await open(page)
  await page.goto(`/#/build/${String(id)}/dyno`)
  const dyno = page.getByRole('region', { name: 'On the dyno' })
  await expect(dyno.getByRole('table', { name: 'Ranked on what was measured' })).toBeVisible()
  await shot(page, 'dyno')
  await request.post(`/api/builds/${String(id)}/archive`)
})

test('on the road', async ({ page, request }) => {
  const builds = (await (await request.get('/api/builds')).json()) as { id: number; name: string }[]
  const id = builds.find(({ name }) => name.startsWith('Quarry Lane'))?.id ?? 0
  await page.setViewportSize({ width: 1280, height: 960 })
  await open(page)
  await page.goto(`/#/build/${String(id)}/service`)
  await page.getByText('What wears', { exact: true }).click()
  await expect(page.getByLabel(/^Seat load over use/).first()).toBeVisible()
  await shot(page, 'service')
})

test('choosing', async ({ page }) => {
  test.setTimeout(900_000)
  await open(page)
  await step(page, 'Choose')
  await expect(page.getByText(/^By drafted curves of/)).toBeVisible({ timeout: 200_000 })
  await page.setViewportSize({ width: 1280, height: 1000 })
  await shot(page, 'choose')

  const search = page.getByRole('region', { name: 'Search' })
  await search.getByRole('button', { name: 'Search', exact: true }).click()
  await expect(search.getByRole('table').filter({ hasText: 'Finalists, in full' })).toBeVisible({
    timeout: 400_000,
  })
  await page.setViewportSize({ width: 1280, height: 1300 })
  await search.scrollIntoViewIfNeeded()
  await shot(page, 'search')
})
