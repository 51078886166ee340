import { expect, step, test } from './screen'

test('a gap falls term by term to what is left at speed; a measured term replaces an assumed one, and is undone', async ({
  bench,
}) => {
  await step(bench, 'Clearance')
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
