import { chromium } from '@playwright/test'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--disable-quic','--no-first-run','--disable-background-networking','--disable-component-update','--disable-sync'] })
const steps = process.argv.slice(2)
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
page.on('console', m => { if (m.type() === 'error') console.log('console:', m.text()) })
page.on('pageerror', e => console.log('pageerror:', e.message))
await page.goto('http://127.0.0.1:8150/')
await page.waitForSelector('.bench')
await page.waitForTimeout(600)
for (const s of steps) {
  const [cmd, ...rest] = s.split(':'); const arg = rest.join(':')
  if (cmd === 'shot') await page.screenshot({ path: `/tmp/shots/${arg}.png` })
  if (cmd === 'step') await page.getByRole('navigation', { name: 'Steps' }).getByRole('button', { name: new RegExp(`^${arg}`) }).click()
  if (cmd === 'click') await page.locator(arg).first().click()
  if (cmd === 'text') await page.getByText(arg, { exact: true }).first().click()
  if (cmd === 'button') await page.getByRole('button', { name: arg }).first().click()
  if (cmd === 'key') await page.keyboard.press(arg)
  if (cmd === 'type') await page.keyboard.type(arg)
  if (cmd === 'size') { const [w, h] = arg.split('x').map(Number); await page.setViewportSize({ width: w, height: h }) }
  if (cmd === 'dark') await page.emulateMedia({ colorScheme: 'dark' })
  if (cmd === 'goto') { await page.goto('http://127.0.0.1:8150/' + arg); await page.reload(); await page.waitForTimeout(900) }
  if (cmd === 'scroll') await page.evaluate(y => window.scrollTo(0, Number(y)), arg)
  if (cmd === 'eval') console.log(await page.evaluate(arg))
  await page.waitForTimeout(350)
}
await browser.close()
