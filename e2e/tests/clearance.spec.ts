import type { Page } from '@playwright/test'
import { DEMO, event, expect, step, test } from './screen'

/** Turns to one of the views of the step. */
async function view(bench: Page, name: string) {
  await bench
    .getByRole('radiogroup', { name: 'How near is looked at' })
    .getByText(name, { exact: true })
    .click()
}

test('a gap falls term by term to what is left at speed; a measured term replaces an assumed one, and is undone', async ({
  bench,
}) => {
  await step(bench, 'Clearance')
  await view(bench, 'At speed')
  const speed = bench.getByRole('region', { name: 'Valve to piston at speed' })
  await expect(speed).toContainText(/At 5800 rpm \.\d+ in is left on the intake/)
  const heat = speed.getByRole('row', { name: /^Piston heat/ })
  await expect(heat).toContainText('−.006 in')
  const left = speed.getByRole('row', { name: /^Left/ })
  const before = await left.innerText()
  // The term's name leads to its field.
  await heat.getByRole('button', { name: 'Piston heat' }).click()
  const field = bench.getByRole('textbox', { name: 'Piston heat', exact: true })
  await expect(field).toBeFocused()
  await field.fill('.012')
  await field.press('Tab')
  await expect(heat).toContainText('−.012 in')
  await expect(left).not.toHaveText(before)
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(heat).toContainText('−.006 in')
  await expect(field).toHaveValue('0.006 in')
})

test('chances come with what to measure first; a wider plus-minus fails more, stands beside its verdict, and is undone', async ({
  bench,
}) => {
  test.setTimeout(120_000)
  await step(bench, 'Clearance')
  await view(bench, 'How likely')
  const likely = bench.getByRole('region', { name: 'How likely limits fail' })
  await expect(likely).toContainText(/Of all limits that are met/)
  await expect(likely.getByRole('heading', { name: 'Measure first' })).toBeVisible()
  const head = likely
    .getByRole('list', { name: 'Limits under the tolerances' })
    .getByRole('listitem')
    .filter({ hasText: 'Piston to head:' })
  await expect(head).toHaveCount(0)
  await likely.getByText(/^Plus-minus of \d+ fields/).click()
  const deck = likely.getByRole('textbox', { name: 'Plus-minus of Deck clearance' })
  await deck.fill('.030')
  await deck.press('Enter')
  await expect(head.first()).toContainText(/\d+ in 100 engines fail/)
  await expect(likely.getByRole('row', { name: /^Deck clearance/ })).toContainText('said here')
  // The chance stands beside the verdict.
  const margins = bench.getByRole('complementary', { name: 'Margins' })
  await expect(margins.getByText(/in 100 engines fail under the tolerances/).first()).toBeVisible()
  await expect(likely).toContainText(/Held against whole computations of at least 50\d cylinders/)
  // Larger than the value it is of: refused at its field.
  const ratio = likely.getByRole('textbox', { name: 'Plus-minus of Stroke' })
  await ratio.fill('9 in')
  await ratio.press('Enter')
  await expect(likely.getByText(/less than the value it is of/)).toBeVisible()
  await ratio.press('Escape')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(head).toHaveCount(0)
})

test.describe('an engine of which nobody has computed a curve', () => {
  // The server keeps curves by what they are of: another test's curve of the same engine would decide on knock here.
  test.use({ document: DEMO.replace('"runner_length": "12.5 in"', '"runner_length": "12.7 in"') })

  test('one drag turns the cam through its window, and what is set there is one step of undo', async ({
    bench,
  }) => {
    test.setTimeout(120_000)
    await step(bench, 'Clearance')
    await view(bench, 'Phasing window')
    const window = bench.getByRole('region', { name: 'Phasing window' })
    await expect(window).toContainText(
      /Nothing that depends on phasing fails from .* retarded to .* advanced/,
    )
    const turn = window.getByRole('slider', { name: 'Cam turned, crank degrees advanced' })
    await turn.focus()
    for (let i = 0; i < 4; i += 1) await turn.press('ArrowRight')
    await expect(window).toContainText('2.0 deg advanced: nothing that depends on phasing fails.')
    await turn.press('End')
    await expect(window).toContainText(/10.0 deg advanced: .*Dynamic compression.* fails/)
    await turn.press('Home')
    for (let i = 0; i < 16; i += 1) await turn.press('ArrowRight')
    await window.getByRole('button', { name: 'set it here: intake centreline 109.0 deg' }).click()
    await expect(window).toContainText('As it is set')
    await step(bench, 'Events')
    const closes = event(bench, 'Intake closes')
    await expect(closes).toHaveValue('34.0')
    await bench.getByRole('button', { name: 'Undo' }).click()
    await expect(closes).toHaveValue('32.0')
  })
})
