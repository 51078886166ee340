import { ALONE, expect, handle, step, test } from './screen'

test.slow()

test('choosing: both schools at once, a decision dragged with torque following, its proposal taken and undone', async ({
  bench,
}) => {
  await step(bench, 'Choose')
  // Both schools and the present cam stand there before the drafts are done.
  const proposals = bench.locator('.proposals tbody tr')
  await expect(proposals).toHaveCount(3, { timeout: 120_000 })
  await expect(proposals.nth(2)).toContainText('By the card')
  const decision = bench.getByRole('slider', { name: 'Intake closing', exact: true })
  const before = await decision.getAttribute('aria-valuetext')
  const at = await decision.boundingBox()
  if (!at) throw new Error('the handle has no place')
  await bench.mouse.move(at.x + at.width / 2, at.y + 90)
  await bench.mouse.down()
  // Torque follows the hand; when sharper curves come in just then, the next move takes them up.
  let by = 60
  await expect(async () => {
    by += 4
    await bench.mouse.move(at.x + at.width / 2 + by, at.y + 90, { steps: 3 })
    await expect(bench.getByText(/% average torque, .* peak power;/)).toBeVisible({
      timeout: 2_000,
    })
  }).toPass({ timeout: 60_000 })
  // A hand that rests before it lets go: the preview has long been at the same place.
  const held = Number(await decision.getAttribute('aria-valuenow'))
  await expect(handle(bench, 'Intake closes')).toHaveAttribute(
    'aria-valuetext',
    `${held.toFixed(1)} degrees after BDC`,
  )
  await bench.mouse.up()
  await expect(decision).not.toHaveAttribute('aria-valuetext', before ?? '', { timeout: 60_000 })
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(decision).toHaveAttribute('aria-valuetext', before ?? '', { timeout: 60_000 })
  // By keys: a step to the right and back.
  await decision.press('ArrowRight')
  await expect(decision).not.toHaveAttribute('aria-valuetext', before ?? '', { timeout: 60_000 })
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(decision).toHaveAttribute('aria-valuetext', before ?? '', { timeout: 60_000 })
  // The same cam as its card says it: separation by keys moves the exhaust's events.
  await bench.getByText('As a card').click()
  const separation = bench.getByRole('slider', { name: 'Lobe separation', exact: true })
  const opens = handle(bench, 'Exhaust opens')
  const [from, opened] = await Promise.all([
    separation.getAttribute('aria-valuetext'),
    opens.getAttribute('aria-valuetext'),
  ])
  await separation.press('ArrowRight')
  await expect(separation).not.toHaveAttribute('aria-valuetext', from ?? '')
  await expect(opens).not.toHaveAttribute('aria-valuetext', opened ?? '')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(separation).toHaveAttribute('aria-valuetext', from ?? '')
  await expect(opens).toHaveAttribute('aria-valuetext', opened ?? '')
})

test('a proposal is explained, kept as a candidate, and can be undone', async ({ bench }) => {
  await step(bench, 'Choose')
  await expect(bench.locator('.proposals tbody tr')).toHaveCount(3, { timeout: 120_000 })
  await bench.getByRole('button', { name: /^By the events/ }).click()
  await expect(bench.locator('.because')).toContainText('Exhaust opening')
  const tabs = bench.getByRole('navigation', { name: 'Candidates' }).getByRole('button')
  const before = await tabs.count()
  await bench.getByRole('button', { name: 'Keep as candidate' }).first().click()
  await expect(tabs).toHaveCount(before + 1, { timeout: 60_000 })
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(tabs).toHaveCount(before, { timeout: 60_000 })
})

test.describe('of one cylinder', () => {
  test.use({ document: ALONE })
  // A minute and a half where nothing else runs.
  test.describe.configure({ timeout: 400_000 })

  test('what stands beside the cam: a ratio stepped by keys, torque with it, the computed curve at rest, undone', async ({
    bench,
  }) => {
    await step(bench, 'Choose')
    await bench.getByText('5 Hardware').click({ timeout: 120_000 })
    const ratio = bench.getByRole('slider', { name: 'Rocker ratio', exact: true })
    await expect(ratio).toBeVisible({ timeout: 300_000 })
    await expect(bench.locator('.following [role=status]')).toHaveText('computed', {
      timeout: 300_000,
    })
    await expect(ratio).toHaveAttribute('aria-valuetext', '1.60')
    await ratio.press('ArrowRight')
    await expect(ratio).toHaveAttribute('aria-valuetext', '1.65')
    await expect(bench.getByText(/% average torque, .* peak power; computed/)).toBeVisible({
      timeout: 300_000,
    })
    await bench.getByRole('button', { name: 'Undo' }).click()
    await expect(ratio).toHaveAttribute('aria-valuetext', '1.60', { timeout: 300_000 })
    await step(bench, 'Rocker')
    await expect(bench.getByRole('textbox', { name: 'Ratio', exact: true })).toHaveValue('1.60')
  })
})
