import { randomUUID } from 'node:crypto'
import { expect, keepUnsent, own, pool, storedEvents, test, type Workshop } from './fixtures'

const head = (page: import('@playwright/test').Page) => page.getByRole('heading', { level: 1 })

async function newPour({ address, headers }: Workshop): Promise<string> {
  const { testPlan } = await import('../unit/plans')
  const id = randomUUID()
  const answer = await fetch(`${address}/api/pours`, {
    method: 'POST',
    headers: { ...headers, 'content-type': 'application/json' },
    body: JSON.stringify({ id, plan: testPlan() }),
  })
  expect(answer.status).toBe(200)
  return id
}

test('eight windows of one browser share one stream, and another leads when that one is closed', async ({
  context,
  open,
  workshop,
}) => {
  const id = await newPour(workshop)
  let streams = 0
  context.on('request', (request) => {
    if (request.url().includes('/api/changes')) streams += 1
  })
  const windows = await Promise.all(Array.from({ length: 8 }, () => context.newPage()))
  for (const window of windows) await open(window, `/pour/${id}`)
  for (const window of windows) await expect(head(window)).toHaveText('Get the mould ready')
  expect(streams).toBe(1)
  await pool(windows[7]!).click()
  for (const window of windows) await expect(head(window)).toHaveText('Weigh the water')
  // The first one held the stream.
  await windows[0]!.close()
  await expect.poll(() => streams).toBe(2)
  await pool(windows[3]!).click()
  for (const window of windows.slice(1)) await expect(head(window)).toHaveText('Weigh the plaster')
  await expect
    .poll(async () => (await storedEvents(workshop, id)).map((e) => e.type))
    .toEqual(['mould_ready', 'weighed'])
})

own(
  'a window that follows knows when nobody is connected, and what it recorded goes out in the end',
  async ({ context, page, open, workshop }) => {
    const id = await newPour(workshop)
    await open(page, `/pour/${id}`)
    const other = await context.newPage()
    await open(other, `/pour/${id}`)
    await expect(head(other)).toHaveText('Get the mould ready')
    await workshop.server.stop('SIGKILL')
    for (const window of [page, other]) await expect(window.getByText('Not connected')).toBeVisible()
    await pool(other).click()
    await expect(head(page)).toHaveText('Weigh the water')
    for (const window of [page, other]) await expect(window.getByText('1 waiting')).toBeVisible()
    // Closed and opened again without a connection, it is still there.
    await other.close()
    await workshop.restart('SIGKILL')
    for (const window of [page])
      await expect(window.getByText('Not connected')).toBeHidden({ timeout: 20_000 })
    await expect
      .poll(async () => (await storedEvents(workshop, id)).map((e) => e.type))
      .toEqual(['mould_ready'])
  },
)

test('what the workshop would not take is kept in a list: looked at, corrected, sent again', async ({
  page,
  open,
  workshop,
}) => {
  const id = await newPour(workshop)
  await open(page, `/pour/${id}`)
  await page.route('**/events', (route) =>
    route.fulfill({ status: 400, json: { error: { code: 'invalid_input', fields: [] } } }),
  )
  await pool(page).click()
  await expect(page.getByText('One thing you recorded was not taken.')).toBeVisible()
  await expect(head(page)).toHaveText('Get the mould ready')
  await page.unroute('**/events')
  await page.reload()
  await page.getByRole('link', { name: 'Look at it' }).click()
  await expect(head(page)).toHaveText('Not recorded')
  await expect(page.getByRole('heading', { name: 'Mould ready' })).toBeVisible()
  await expect(page.getByText('Something in it is out of range.')).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'All of them as a file' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('not-recorded.json')
  await page.getByRole('button', { name: 'Correct it' }).click()
  await page.getByLabel('It happened at').fill('2026-01-05T10:11:12')
  await page.getByRole('button', { name: 'Send it corrected' }).click()
  await expect(page.getByText('Everything you recorded on this device has been taken.')).toBeVisible()
  const [event] = await storedEvents(workshop, id)
  expect(event).toMatchObject({ type: 'mould_ready' })
  expect(event!.occurred_at.getFullYear()).toBe(2026)
  expect(event!.occurred_at.getMonth()).toBe(0)
})

own(
  'two browsers an hour without a connection, two hundred events each: both end in the same state',
  async ({ browser, open, workshop }) => {
    const id = await newPour(workshop)
    const contexts = [await browser.newContext(), await browser.newContext()]
    const pages = await Promise.all(contexts.map((c) => c.newPage()))
    for (const page of pages) {
      await open(page, `/casts/${id}`)
      await expect(head(page)).toHaveText('A test piece')
    }
    for (const context of contexts) await context.setOffline(true)
    const startMs = Date.now() - 3_600_000
    // Each has been away for an hour: what the browser then holds, some of it twice told and not in order.
    for (const [who, page] of pages.entries())
      await keepUnsent(
        page,
        Array.from({ length: 200 }, (_, i) => ({
          pourId: id,
          event: {
            id: `${String(who)}${String(i).padStart(7, '0')}-0000-4000-8000-000000000000`,
            occurredAtMs: startMs + i * 7000 + who,
            who: `W${who}`,
            planRevision: 1,
            body:
              i % 50 === 49
                ? {
                    type: 'void',
                    targetId: `${String(1 - who)}${String(i - 3).padStart(7, '0')}-0000-4000-8000-000000000000`,
                  }
                : i % 10 === 0
                  ? { type: 'weighed', what: i % 20 === 0 ? 'water' : 'powder', massG: 700 + i }
                  : { type: 'note', text: `n${i}` },
          },
        })).sort((a, b) => ((a.event.occurredAtMs * 7919) % 1013) - ((b.event.occurredAtMs * 7919) % 1013)),
      )
    for (const context of contexts) await context.setOffline(false)
    // Sent from wherever one is.
    for (const page of pages) await open(page, '/settings')
    await expect.poll(async () => (await storedEvents(workshop, id)).length, { timeout: 120_000 }).toBe(400)
    for (const page of pages) await open(page, `/casts/${id}`)
    // Both show what the log says, line by line.
    const shown = async (page: (typeof pages)[number]) =>
      (await page.locator('main').innerText()).replace(/\d+ (s|min) ago/g, '')
    await expect
      .poll(async () => (await shown(pages[0]!)) === (await shown(pages[1]!)), { timeout: 30_000 })
      .toBe(true)
    for (const context of contexts) await context.close()
  },
)
