import { expect, test } from '@playwright/test'
import { share } from './share'

/** Main-thread time of a drag event: from the browser's own task clock, answer and drawing included. */
test('main-thread work of a drag event, round trip of an edit', async ({ page }) => {
  await page.goto('/')
  const opens = page.getByRole('slider', { name: 'Intake opens at .050' })
  await expect(opens).toBeVisible()
  await page.waitForTimeout(500)
  const trips: number[] = []
  page.on('requestfinished', (request) => {
    if (request.url().endsWith('/api/workbench')) trips.push(request.timing().responseEnd)
  })
  const devtools = await page.context().newCDPSession(page)
  // Processor time of the main thread: on a shared machine wall time also counts others' work.
  await devtools.send('Performance.enable', { timeDomain: 'threadTicks' })
  const spent = async (...names: string[]) => {
    const { metrics } = await devtools.send('Performance.getMetrics')
    const own = metrics.filter(({ name }) => names.includes(name))
    return own.reduce((sum, { value }) => sum + value, 0) * 1000
  }
  const busy = () => spent('TaskDuration')
  const thinking = () => spent('ScriptDuration', 'RecalcStyleDuration', 'LayoutDuration')
  const idleFrom = await busy()
  await page.waitForTimeout(1000)
  const idlePerPause = ((await busy()) - idleFrom) * 0.06
  const box = await opens.boundingBox()
  if (!box) throw new Error('no handle')
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  // What the browser and the measuring itself cost: the same moves beside the handle, nothing held.
  const bare: number[] = []
  for (let i = 0; i < 60; i += 1) {
    const before = await busy()
    await page.mouse.move(x - 12 * Math.sin(i / 6), 5)
    await page.waitForTimeout(60)
    bare.push((await busy()) - before - idlePerPause)
  }
  await page.mouse.move(x, y)
  await page.mouse.down()
  const work: number[] = []
  const ours: number[] = []
  for (let i = 0; i < 120; i += 1) {
    const before = await busy()
    const thought = await thinking()
    await page.mouse.move(x - 12 * Math.sin(i / 6), y)
    await page.waitForTimeout(60)
    work.push((await busy()) - before - idlePerPause)
    ours.push((await thinking()) - thought)
  }
  await page.mouse.up()
  for (const list of [work, ours, bare, trips]) list.sort((a, b) => a - b)
  console.log(
    `drag event, main thread: median ${share(work, 0.5).toFixed(1)} ms, 95th percentile ${share(work, 0.95).toFixed(1)} ms (${work.length} events)`,
  )
  console.log(
    `script, style and layout of it: median ${share(ours, 0.5).toFixed(1)} ms, 95th percentile ${share(ours, 0.95).toFixed(1)} ms`,
  )
  console.log(
    `the same move without a drag: median ${share(bare, 0.5).toFixed(1)} ms, 95th percentile ${share(bare, 0.95).toFixed(1)} ms`,
  )
  console.log(
    `edit round trip: median ${share(trips, 0.5).toFixed(1)} ms, 95th percentile ${share(trips, 0.95).toFixed(1)} ms (${trips.length} requests)`,
  )
})
