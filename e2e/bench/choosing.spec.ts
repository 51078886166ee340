import { expect, test } from '@playwright/test'
import { share } from './share'

declare global {
  interface Window {
    /** Milliseconds from a move of the pointer to the words and the curve that follow it. */
    followed?: number[]
  }
}

/** From a move of a decision's handle to torque and power that follow it on screen, the core's answer included. */
test('torque that follows a drag of a decision', async ({ page }) => {
  await page.goto('/')
  await page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('button', { name: /^Choose/ })
    .click()
  const closing = page.getByRole('slider', { name: 'Intake closing', exact: true })
  await expect(closing).toBeVisible({ timeout: 60_000 })
  await expect(page.getByText(/^By .*Climbed by/)).toBeVisible({ timeout: 120_000 })
  const box = await closing.boundingBox()
  if (!box) throw new Error('no handle')
  const [x, y] = [box.x + box.width / 2, box.y + 90]
  const answers: number[] = []
  page.on('requestfinished', (request) => {
    if (request.url().endsWith('/api/workbench')) {
      const { requestStart, responseEnd } = request.timing()
      answers.push(responseEnd - Math.max(requestStart, 0))
    }
  })
  await page.evaluate(() => {
    const followed: number[] = []
    window.followed = followed
    let moved = 0
    window.addEventListener('pointermove', () => (moved = performance.now()), { capture: true })
    const words = document.querySelector('.choose-pictures')
    if (!words) throw new Error('nothing follows')
    const seen = new MutationObserver(() => {
      if (moved === 0) return
      followed.push(performance.now() - moved)
      moved = 0
    })
    const status = [...words.querySelectorAll('[role=status]')].at(-1)
    if (!status) throw new Error('nothing is said')
    seen.observe(status, { characterData: true, childList: true, subtree: true })
  })
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let i = 0; i < 120; i += 1) {
    await page.mouse.move(x + 40 * Math.sin(i / 5), y)
    await page.waitForTimeout(60)
  }
  const followed = (await page.evaluate(() => window.followed ?? [])).sort((a, b) => a - b)
  await page.mouse.up()
  answers.sort((a, b) => a - b)
  console.log(
    `move to torque that follows: median ${share(followed, 0.5).toFixed(1)} ms, 95th percentile ${share(followed, 0.95).toFixed(1)} ms (${followed.length} of 120 moves)`,
  )
  console.log(
    `the answer of it: median ${share(answers, 0.5).toFixed(1)} ms, 95th percentile ${share(answers, 0.95).toFixed(1)} ms (${answers.length} requests)`,
  )
})
