import { expect, step, test } from './screen'

test('a cam is degreed in by keyboard, questioned where it cannot be, its centreline taken and undone', async ({
  bench,
}) => {
  await step(bench, 'Bench')
  const at = bench.getByRole('region', { name: 'At the bench' })
  await at.getByRole('button', { name: 'Begin' }).click()
  const next = at.getByRole('form', { name: 'Next reading' })
  await expect(next).toContainText('opening, 0.050 in above the base')
  const wheel = next.getByRole('textbox', { name: 'Wheel' })
  const read = async (text: string, place: string) => {
    await expect(next).toContainText(place)
    await wheel.fill(text)
    await wheel.press('Enter')
  }
  // What is no angle stays in its field with its fault.
  await read('2 lbf', '1 of 4')
  await expect(next.getByRole('alert')).toContainText('angle')
  await expect(wheel).toHaveValue('2 lbf')
  // As the card quotes it, minus two and 32: asked for before it is believed.
  await read('-2', '1 of 4')
  await read('32', '2 of 4')
  await expect(at.getByText(/Look again: .*as events are quoted/)).toBeVisible()
  await next.getByRole('button', { name: 'Take back' }).click()
  await expect(next).toContainText('2 of 4')
  await next.getByRole('button', { name: 'Take back' }).click()
  // Three degrees late on both flanks at both heights: 107 -/+ 105 and 63.
  await read('5', '1 of 4')
  await read('215', '2 of 4')
  await read('47', '3 of 4')
  await read('173', '4 of 4')
  await expect(at.getByText('Everything that is asked for was read.')).toBeVisible()
  await expect(at.getByRole('status')).toContainText('3.0 deg retarded')
  // Held against the document: beyond both doubts, and the field that would explain it.
  const held = at.getByRole('region', { name: 'Against the document' })
  await expect(held.getByRole('row', { name: /^Intake centreline/ })).toContainText('→ 110.0 deg')
  // Left for good, it is not asked again; undone, it is.
  await at.getByRole('button', { name: /^Leave .*centreline/ }).click()
  await expect(at.getByText(/^Left as it was: .*centreline/)).toBeVisible()
  await expect(at.getByRole('button', { name: /^Take .*centreline/ })).toHaveCount(0)
  await bench.getByRole('button', { name: 'Undo' }).click()
  await at.getByRole('button', { name: /^Take .*centreline/ }).click()
  await expect(at.getByRole('status')).toContainText('as the document has it')
  await bench.getByRole('button', { name: 'Undo' }).click()
  await expect(at.getByRole('status')).toContainText('3.0 deg retarded')
  // Another session stands beside it.
  await at.getByRole('combobox', { name: 'What is measured' }).click()
  await bench.getByTitle('Leak-down').click()
  await at.getByRole('button', { name: 'Begin' }).click()
  await expect(next).toContainText('cylinder 1')
  await next.getByRole('textbox', { name: 'Supply' }).fill('100 psi')
  await next.getByRole('textbox', { name: 'Cylinder gauge' }).fill('92 psi')
  await bench.keyboard.press('Enter')
  await expect(at.getByRole('status')).toContainText('cylinder 1 loses most, 8 %')
  // A third is begun while the first is looked at: it is the one that is shown.
  const begun = at.getByRole('navigation', { name: 'Sessions' })
  await begun.getByRole('button', { name: /^Degree-in/ }).click()
  await expect(at.getByRole('status')).toContainText('3.0 deg retarded')
  await at.getByRole('button', { name: 'Begin' }).click()
  await expect(begun.getByRole('button')).toHaveCount(3)
  await expect(begun.locator('[aria-current="true"]')).toHaveText(/^Leak-down/)
  await expect(next).toContainText('1 of 8')
  await at.getByRole('button', { name: 'Take this session out' }).click()
  await expect(begun.getByRole('button')).toHaveCount(2)
  await at.getByRole('button', { name: 'Take this session out' }).click()
  await expect(at.getByRole('navigation', { name: 'Sessions' }).getByRole('button')).toHaveCount(1)
})
