import { DEMO, expect, step, test } from './screen'
import { dynoStandIn } from './standIn'

test('a test is planned, run on a dyno that sends lines, and its difference is told with its doubt', async ({
  bench,
}) => {
  const demo = JSON.parse(DEMO) as Record<string, unknown>
  const build = { ...demo, dyno_test: { control: 'a', against: ['b'], pulls_each: 2 } }
  const cell = await dynoStandIn(JSON.stringify(build))
  await step(bench, 'Dyno')
  const dyno = bench.getByRole('region', { name: 'On the dyno' })
  const order = dyno.getByRole('list', { name: 'Order of the pulls' })
  await expect(order.getByRole('listitem')).toHaveCount(12)
  await dyno.getByRole('checkbox', { name: /^C / }).click()
  await expect(order.getByRole('listitem')).toHaveCount(9)
  const each = bench.getByRole('textbox', { name: 'Pulls each' })
  await each.fill('2')
  await each.press('Enter')
  await expect(order.getByRole('listitem')).toHaveCount(6)
  await dyno.getByRole('button', { name: 'Instruments' }).click()
  const dialog = bench.getByRole('dialog', { name: 'Instruments' })
  await dialog.getByRole('textbox', { name: 'Name' }).fill('Cell')
  await dialog.getByRole('textbox', { name: 'At', exact: true }).fill(cell.at)
  await dialog.getByRole('combobox', { name: 'Measures' }).click()
  await bench.getByTitle('pull', { exact: true }).click()
  await dialog.getByRole('button', { name: 'Keep' }).click()
  await dialog.getByRole('button', { name: 'Close' }).click()
  await dyno.getByRole('combobox', { name: 'Dyno' }).click()
  await bench.getByTitle('Cell', { exact: true }).click()
  await expect(dyno.getByText('waiting', { exact: true })).toBeVisible()
  for (let done = 1; done <= 6; done += 1) {
    cell.process.stdin?.write('\n')
    await expect(dyno.getByText(`${String(done)} of 6 pulls run`)).toBeVisible()
  }
  cell.process.kill()
  await expect(dyno.getByText('All pulls are run.')).toBeVisible()
  // One step of undo is one pull.
  await bench.keyboard.press('Control+z')
  await expect(dyno.getByText('5 of 6 pulls run')).toBeVisible()
  await bench.keyboard.press('Control+y')
  await expect(dyno.getByText('All pulls are run.')).toBeVisible()
  await dyno.getByText('Is it real').click()
  const row = dyno.getByRole('row', { name: /B later closing, peak power / })
  // The model has it 21 hp up there; chance and drift of the stand-in leave a few.
  await expect(row).toContainText('more')
  await expect(row).toContainText('over 99 %')
  await expect(dyno.getByRole('table', { name: 'Ranked on what was measured' })).toBeVisible()
})

/** A pull as some dyno writes it, without a unit of its torque. */
function file(torque: number): { name: string; mimeType: string; buffer: Buffer } {
  const lines = Array.from({ length: 120 }, (_, i) => {
    const rpm = 2000 + 30 * i
    const spike = i === 60 ? 60 : 0
    return `${String(rpm)};${(torque - ((rpm - 3900) / 210) ** 2 + spike).toFixed(1).replace('.', ',')}`
  })
  const text = ['Cell of a shop', 'Engine speed;Ch2', ...lines].join('\r\n')
  return { name: `run ${String(torque)}.csv`, mimeType: 'text/csv', buffer: Buffer.from(text) }
}

test('a file is mapped once, its spike is left out in sight, and what cannot be is said', async ({
  bench,
}) => {
  await step(bench, 'Dyno')
  const dyno = bench.getByRole('region', { name: 'On the dyno' })
  await dyno.getByText(/^Pulls \d/).click()
  const choose = dyno.getByLabel('File of a dyno')
  await choose.setInputFiles(file(400))
  const opened = dyno.getByRole('region', { name: 'File run 400.csv' })
  // Nobody knows what Ch2 is, and nothing is guessed.
  await expect(opened.getByRole('alert')).toContainText('no column holds torque or power')
  await opened.getByRole('combobox', { name: 'Ch2 holds' }).click()
  await bench.getByTitle('torque', { exact: true }).click()
  await expect(opened.getByRole('alert')).toContainText('needs its unit')
  await opened.getByRole('combobox', { name: 'Unit of Ch2' }).click()
  await bench.getByTitle('lbf ft', { exact: true }).click()
  await expect(opened.getByText(/Run 1: 120 points, 2000 to 5570 rpm/)).toBeVisible()
  await opened.getByRole('button', { name: 'Take over 1 pull' }).click()
  await expect(dyno.getByRole('row', { name: /p1 .*1 far off their neighbours/ })).toBeVisible()
  await choose.setInputFiles(file(402))
  const second = dyno.getByRole('region', { name: 'File run 402.csv' })
  await expect(second.getByText('columns as they were mapped before')).toBeVisible()
  await second.getByRole('button', { name: 'Take over 1 pull' }).click()
  await expect(dyno.getByRole('row', { name: /^p2 / })).toBeVisible()
  // A pull is left out with its reason, and counts again when that is taken away.
  await dyno.getByRole('button', { name: 'p2', exact: true }).click()
  const why = dyno.getByRole('textbox', { name: 'Left out' })
  await why.fill('knock heard')
  await why.press('Enter')
  await expect(dyno.getByRole('row', { name: /p2 .*not counted: knock heard/ })).toBeVisible()
  // Rubbish is no file of a dyno, and changes nothing.
  await choose.setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('hello') })
  await expect(dyno.getByRole('alert')).toContainText('no two lines')
  await dyno.getByRole('button', { name: 'Back to the pulls' }).click()
  await expect(dyno.getByRole('row', { name: /^p2 / })).toBeVisible()
})

/** The demo with its own pull on two days, the later one falling away beyond 4,800 rpm as tired springs make it. */
function aSeasonOn(): string {
  const { pull, ...demo } = JSON.parse(DEMO) as { pull: { points: [string, string][] } }
  const day = (name: string, nose: number) =>
    [0, 1].map((nth) => ({
      id: `${name} ${String(nth)}`,
      candidate: 'a',
      day: name,
      points: pull.points.map(([rpm, torque]) => {
        const lost = 1 - nose * Math.max(0, (parseFloat(rpm) - 4800) / 600)
        const own = parseFloat(torque) * lost * (1 + 0.001 * nth)
        return [rpm, `${own.toFixed(1)} lbf ft`]
      }),
    }))
  return JSON.stringify({ ...demo, pulls: [...day('2026-03-09', 0), ...day('2026-09-21', 0.08)] })
}

test.describe('a season on', () => {
  test.use({ document: aSeasonOn() })

  test('a steeper fall past the peak is found with its speed, and leads to the springs', async ({
    bench,
  }) => {
    await step(bench, 'Dyno')
    const dyno = bench.getByRole('region', { name: 'On the dyno' })
    await dyno.getByText('What is wrong').click()
    await dyno.getByRole('button', { name: 'Look into it' }).click()
    await expect(dyno.getByText(/it noses over from 4[789]\d\d rpm on/)).toBeVisible()
    const causes = dyno.getByRole('table', { name: 'What may be behind it' })
    await expect(causes.getByRole('row', { name: /springs at 85 %:/ })).toBeVisible()
    await expect(dyno.getByText(/Look into this first: tired valve springs/)).toBeVisible()
    // A cause is laid over what was measured.
    await causes
      .getByRole('row', { name: /Exhaust that holds back/ })
      .getByRole('button', { name: 'Lay it over' })
      .click()
    await expect(dyno.getByText(/and with 15 kPa more back pressure/)).toBeVisible()
  })
})
