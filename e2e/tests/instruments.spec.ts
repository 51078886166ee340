import type { ChildProcess } from 'node:child_process'
import { spawn } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DEMO, expect, step, test } from './screen'
import { BINARY } from './servers'

/** A stand-in that plays the session `s` of the demo with an empty degree-in, and where it is. */
async function standIn(): Promise<{ process: ChildProcess; at: string }> {
  const demo = JSON.parse(DEMO) as Record<string, unknown>
  const build = { ...demo, bench: [{ id: 's', kind: 'degree_in' }] }
  const file = join(mkdtempSync(join(tmpdir(), 'stand-in-')), 'build.json')
  writeFileSync(file, JSON.stringify(build))
  const process = spawn(BINARY, ['stand-in', file, '--session', 's', '--by-hand', '--rests', '600'])
  const first = await new Promise<string>((told) => {
    process.stdout.once('data', (data: Buffer) => {
      told(data.toString())
    })
  })
  return { process, at: first.trim().split(' at ')[1] ?? '' }
}

test('a wheel that sends lines fills the large figure, is taken by Enter and when it rests', async ({
  bench,
}) => {
  const wheel = await standIn()
  await step(bench, 'Bench')
  const at = bench.getByRole('region', { name: 'At the bench' })
  await at.getByRole('button', { name: 'Begin' }).click()
  const next = at.getByRole('form', { name: 'Next reading' })
  await next.getByRole('button', { name: 'Instruments' }).click()
  const dialog = bench.getByRole('dialog', { name: 'Instruments' })
  // Refused first: the shop's own network only.
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Wheel')
  await dialog.getByRole('textbox', { name: 'At', exact: true }).fill('tcp 8.8.8.8:80')
  await dialog.getByRole('combobox', { name: 'Measures' }).click()
  await bench.getByTitle('angle', { exact: true }).click()
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(dialog.getByRole('alert')).toContainText("not on the shop's own network")
  await dialog.getByRole('textbox', { name: 'At', exact: true }).fill(wheel.at)
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await expect(dialog.getByRole('row', { name: /Wheel/ })).toBeVisible()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await next.getByRole('combobox', { name: 'Instrument' }).click()
  await bench.getByTitle('Wheel', { exact: true }).click()
  await expect(next.getByLabel('On the instrument')).toContainText('2.0')
  // Enter takes what stands on it.
  const field = next.getByRole('textbox', { name: 'Wheel', exact: true })
  await field.press('Enter')
  await expect(next).toContainText('2 of 4')
  // From here on each rest is taken by itself; the hand moves the crank on.
  await next.getByRole('checkbox', { name: 'take when it rests' }).check()
  for (const place of ['3 of 4', '4 of 4']) {
    wheel.process.stdin?.write('\n')
    await expect(next).toContainText(place)
  }
  wheel.process.stdin?.write('\n')
  await expect(at.getByText('Everything that is asked for was read.')).toBeVisible()
  await expect(at.getByRole('status')).toContainText('as the document has it')
  wheel.process.kill()
})
