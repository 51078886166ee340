import type { Locator, Page } from '@playwright/test'
import { expect, step, test } from './screen'

/** Steps of a sequence; a seed makes a failure come again. */
const STEPS = Number(process.env['UPPER_LOBE_SEQUENCE'] ?? 12)
const SEEDS = [7, 11, 23, 42, 58, 77]
const PLACES = ['Plan', 'Engine', 'Rocker', 'Lobe', 'Spring', 'Lifter']

/** Seeded shares between 0 and 1 [mulberry32, public domain; from memory]. */
function chance(seed: number): () => number {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state)
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}

/** Counts requests under way, so that "at rest" is a state and not a time. */
function traffic(page: Page): () => number {
  let open = 0
  page.on('request', (request) => {
    if (request.url().includes('/api/workbench') || request.url().includes('/api/builds/'))
      open += 1
  })
  const over = (request: { url: () => string }) => {
    if (request.url().includes('/api/workbench') || request.url().includes('/api/builds/'))
      open -= 1
  }
  page.on('requestfinished', over)
  page.on('requestfailed', over)
  return () => open
}

async function rest(page: Page, open: () => number): Promise<void> {
  let quiet = 0
  await expect
    .poll(
      async () => {
        await page.evaluate(
          () =>
            new Promise((done) => {
              requestAnimationFrame(() => {
                requestAnimationFrame(done)
              })
            }),
        )
        quiet = open() === 0 ? quiet + 1 : 0
        return quiet
      },
      { intervals: [20] },
    )
    .toBeGreaterThan(2)
}

interface Field {
  readonly field: string
  readonly text: string
  readonly table?: unknown
}

/** The document as the tab holds it: unsaved from its draft, else as the server has it; then as a form, by the server. */
async function truth(page: Page): Promise<Map<string, string>> {
  const id = /build\/(\d+)/.exec(page.url())?.[1] ?? ''
  const draft = await page.evaluate(
    (build) => sessionStorage.getItem(`upper-lobe.draft.${build}`),
    id,
  )
  const saved =
    draft === null
      ? ((await (await page.request.get(`/api/builds/${id}`)).json()) as { document: string })
          .document
      : (JSON.parse(draft) as { document: string }).document
  const candidates = (JSON.parse(saved) as { candidates: { id: string; name: string }[] })
    .candidates
  const current = await page.locator('button[aria-current="true"]').allTextContents()
  const candidate = candidates.find((each) => current.some((text) => text.includes(each.name)))?.id
  expect(candidate).toBeDefined()
  const answer = await page.request.post('/api/workbench', {
    data: { document: saved, candidate, form: true, parts: [] },
  })
  const { fields } = (await answer.json()) as { fields: Field[] }
  return new Map(fields.filter((each) => !each.table).map((each) => [each.field, each.text]))
}

/** Every visible field shows the document's text, or what was typed beside its own fault. */
async function isTrue(page: Page, did: readonly string[]): Promise<number> {
  const held = await truth(page)
  const seen = await page.locator('[data-field]').evaluateAll((rows) =>
    rows.flatMap((row) => {
      const input = row.querySelector<HTMLInputElement | HTMLSelectElement>(
        'input[type=text], select:not(.source)',
      )
      if (!input || row.querySelector('table')) return []
      return [
        {
          field: (row as HTMLElement).dataset['field'] ?? '',
          shown: input.value,
          faulty:
            input.getAttribute('aria-invalid') === 'true' &&
            row.querySelector('[role=alert]') !== null,
        },
      ]
    }),
  )
  const wrong = seen.filter(
    ({ field, shown, faulty }) => held.has(field) && held.get(field) !== shown && !faulty,
  )
  expect(wrong, did.slice(-8).join(' | ')).toEqual([])
  return seen.length
}

/** One thing a person does, by chance; what it was. */
async function act(page: Page, share: () => number): Promise<string> {
  const fields = page.locator('main [data-field] input[type=text]')
  const some = async (): Promise<Locator | undefined> => {
    const count = await fields.count()
    return count === 0 ? undefined : fields.nth(Math.floor(share() * count))
  }
  const way = share()
  if (way < 0.14) {
    const place = PLACES[Math.floor(share() * PLACES.length)] ?? 'Engine'
    await step(page, place)
    return `to ${place}`
  }
  if (way < 0.3) {
    await page.locator('h1').first().click()
    await page.keyboard.press('Control+z')
    return 'undo'
  }
  if (way < 0.38) {
    await page.locator('h1').first().click()
    await page.keyboard.press('Control+Shift+z')
    return 'redo'
  }
  if (way < 0.44) {
    await page.keyboard.press('Alt+ArrowRight')
    return 'another candidate'
  }
  if (way < 0.48) {
    await page.keyboard.press('Control+s')
    return 'save'
  }
  if (way < 0.51) {
    await page.reload()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    return 'reload'
  }
  const field = await some()
  if (!field || !(await field.isEditable())) return 'nothing'
  const was = await field.inputValue()
  const number = /^-?\d*\.?\d+/.exec(was)?.[0]
  const texts =
    number === undefined
      ? ['5', 'three']
      : [
          `${(Number(number) * (0.9 + 0.2 * share())).toFixed(3)}`,
          was,
          '-99999',
          '12 psi in',
          `${number} furlongs`,
        ]
  const text = texts[Math.floor(share() * texts.length)] ?? ''
  // A fold that closes or an override that ends takes its field away.
  if (
    !(await field.fill(text, { timeout: 1000 }).then(
      () => true,
      () => false,
    ))
  )
    return 'a field that went away'
  const end = (['Enter', 'Tab', 'Escape'] as const)[Math.floor(share() * 3)] ?? 'Enter'
  await field.press(end)
  return `${was} to ${text} ${end}`
}

for (const seed of SEEDS) {
  test(`whatever is done, every field shows what the document holds, seed ${seed}`, async ({
    bench: page,
  }) => {
    page.on('dialog', (dialog) => void dialog.accept())
    const [open, share, did] = [traffic(page), chance(seed), [] as string[]]
    let compared = 0
    for (let count = 0; count < STEPS; count += 1) {
      did.push(await act(page, share))
      await rest(page, open)
      compared += await isTrue(page, did)
    }
    expect(compared).toBeGreaterThan(STEPS * 3)
  })
}

test('a fault of two fields stands at both until each is mended or undone', async ({
  bench: page,
}) => {
  await step(page, 'Engine')
  const [bore, rod] = [
    page.getByRole('textbox', { name: 'Bore', exact: true }),
    page.getByRole('textbox', { name: 'Rod length', exact: true }),
  ]
  const [was, long] = [await bore.inputValue(), await rod.inputValue()]
  for (const field of [bore, rod]) {
    await field.fill('4 lbf')
    await field.press('Enter')
    await expect(field).toHaveAttribute('aria-invalid', 'true')
  }
  await expect(bore).toHaveAttribute('aria-invalid', 'true')
  await bore.fill(was)
  await bore.press('Enter')
  await expect(bore).toHaveAttribute('aria-invalid', 'false')
  await expect(rod).toHaveValue('4 lbf')
  await rod.press('Escape')
  await expect(rod).toHaveAttribute('aria-invalid', 'false')
  await expect(rod).toHaveValue(long)
})

test('undo takes the typed text back', async ({ bench: page }) => {
  await step(page, 'Engine')
  const gasket = page.locator('[data-field="engine.gasket_thickness"] input')
  const was = await gasket.inputValue()
  await gasket.fill('.060')
  await gasket.press('Tab')
  await expect(page.getByText('not saved')).toBeVisible()
  await page.locator('h1').first().click()
  await page.keyboard.press('Control+z')
  await expect(gasket).toHaveValue(was)
  await expect(page.getByText('revision 1 saved')).toBeVisible()
})
