import { readFileSync } from 'node:fs'
import { expect, step, test } from './screen'

test('a log is kept valve by valve, tells what wears and what is due, and a failure becomes a limit', async ({
  bench,
}) => {
  await step(bench, 'Service')
  const log = bench.getByRole('region', { name: 'On the road' })
  const entry = log.getByRole('form', { name: 'New entry' })
  const write = async (date: string, at: string, event: string) => {
    await entry.getByRole('textbox', { name: 'Day' }).fill(date)
    await entry.getByRole('textbox', { name: 'At' }).fill(at)
    await entry.getByRole('combobox', { name: 'What was done' }).click()
    await bench.getByTitle(event, { exact: true }).last().click()
    await entry.getByRole('button', { name: 'Write it down' }).click()
    await expect(log.getByRole('region', { name: `Entry of ${date}` })).toBeVisible()
  }
  const load = (valve: string) => log.getByRole('textbox', { name: `Seat load, ${valve}` })
  await write('2026-01-10', '0', 'put together')
  await load('cylinder 1 intake').click()
  // Down the engine with Enter, bare numbers.
  for (const text of ['136', '137', '135.5', '136']) {
    await bench.keyboard.type(text)
    await bench.keyboard.press('Enter')
  }
  await expect(log.getByText('seat load 136 to 137 lbf')).toBeVisible()
  await write('2026-05-10', '12,000', 'inspection')
  await load('cylinder 1 intake').click()
  for (const text of ['131', '132.5', '131', '127']) {
    await bench.keyboard.type(text)
    await bench.keyboard.press('Enter')
  }
  await expect(log.getByText('seat load 127 to 132 lbf')).toBeVisible()
  // A slip in one cell is told by its valve and changes nothing.
  await load('cylinder 2 intake').fill('131 furlongs')
  await load('cylinder 2 intake').press('Enter')
  await expect(log.getByText('Seat load, cylinder 2 intake:')).toBeVisible()
  await load('cylinder 2 intake').press('Escape')
  await expect(load('cylinder 2 intake')).toHaveValue('131 lbf')

  await log.getByText('What wears', { exact: true }).click()
  const wears = log.getByRole('table', { name: 'What wears' })
  await expect(wears.getByRole('row', { name: /^Seat load/ })).toContainText('cylinder 2 exhaust')
  await log.getByText(/^Due/).click()
  await expect(log.getByRole('table', { name: 'What is due' })).toContainText(
    'Check spring loads on the seat',
  )
  const [taken] = await Promise.all([
    bench.waitForEvent('download'),
    log.getByRole('button', { name: 'Take the days along' }).click(),
  ])
  expect(readFileSync(await taken.path(), 'utf8')).toContain('BEGIN:VEVENT')

  await log.getByText(/^Log/).click()
  await write('2026-06-20', '13,500 mi', 'failure')
  const finding = log.getByRole('textbox', { name: 'Finding' })
  await finding.fill('outer spring broke at its second coil')
  await finding.press('Enter')
  await log.getByRole('combobox', { name: 'Limit' }).selectOption('coil_bind')
  await log.getByRole('button', { name: /^Hold .* to at least/ }).click()
  await expect(log.getByText('This shop holds to a figure of its own for it.')).toBeVisible()
  await bench.keyboard.press('Control+z')
  await expect(log.getByRole('button', { name: /^Hold .* to at least/ })).toBeVisible()
  await log.getByRole('button', { name: 'Take this entry out' }).click()
  await expect(log.getByText('2026-06-20')).toHaveCount(0)

  // Everything by its day, each with the revision it came with.
  await log.getByText('What became of it', { exact: true }).click()
  const story = log.getByRole('table', { name: 'What became of it' })
  await expect(story.getByRole('row', { name: /^2026-05-10/ })).toContainText('not saved')
  await bench.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(story.getByRole('row', { name: /^2026-05-10/ })).not.toContainText('not saved')
})

test('while the answer to a new entry is late, no field of the one before is offered under its heading', async ({
  bench,
}) => {
  await step(bench, 'Service')
  const log = bench.getByRole('region', { name: 'On the road' })
  const entry = log.getByRole('form', { name: 'New entry' })
  const load = log.getByRole('textbox', { name: 'Seat load, cylinder 1 intake' })
  const write = async (date: string, at: string) => {
    await entry.getByRole('textbox', { name: 'Day' }).fill(date)
    await entry.getByRole('textbox', { name: 'At' }).fill(at)
    await entry.getByRole('button', { name: 'Write it down' }).click()
  }
  await write('2026-01-10', '0')
  await load.fill('136')
  await load.press('Enter')
  await expect(log.getByText('seat load 136 lbf')).toBeVisible()
  // The fields of the second entry wait until they are let go; the edit that begins it does not.
  let letGo = () => {}
  const held = new Promise<void>((resolve) => {
    letGo = resolve
  })
  await bench.route('**/api/workbench', async (route) => {
    const asked = route.request().postDataJSON() as { entry: string | null; edits: unknown[] }
    if (asked.entry === 'v2' && asked.edits.length === 0) await held
    await route.continue()
  })
  await write('2026-05-10', '12,000')
  await expect(log.getByRole('button', { name: '2026-05-10' })).toBeVisible()
  await expect(log.getByText('Reading the entry…')).toBeVisible()
  await expect(load).toHaveCount(0)
  letGo()
  await expect(load).toHaveValue('')
  await expect(log.getByRole('region', { name: 'Entry of 2026-05-10' })).toBeVisible()
})
