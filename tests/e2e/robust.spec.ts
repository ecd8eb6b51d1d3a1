import { expect, knock, own, part, pourIdOf, storedEvents, test } from './fixtures'

async function planOne(page: import('@playwright/test').Page, name: string) {
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill(name)
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Get the mould ready')
  return pourIdOf(page)
}

own(
  'the server is killed mid-pour: every acknowledged event is there after, and what was done meanwhile arrives',
  async ({ page, open, workshop }) => {
    await open(page, '/plan')
    const pourId = await planOne(page, 'Kill test')
    const acknowledged: string[] = []
    page.on('response', async (response) => {
      if (response.request().method() === 'POST' && response.url().endsWith('/events') && response.ok()) {
        acknowledged.push(((await response.json()) as { id: string }).id)
      }
    })
    const head = page.getByRole('heading', { level: 1 })
    await knock(page)
    await expect(head).toHaveText('Weigh the water')
    await expect.poll(() => acknowledged.length).toBe(1)

    await workshop.server.stop('SIGKILL')
    await expect(page.getByText('Not connected')).toBeVisible()
    // The elbow knocks on: it counts on screen and waits in the outbox, even across a reload of the tab's script state.
    await knock(page)
    await expect(head).toHaveText('Weigh the plaster')
    await expect(page.getByText('1 waiting')).toBeVisible()

    await workshop.restart('SIGKILL')
    await expect(page.getByText('Not connected')).toBeHidden({ timeout: 20_000 })
    await expect.poll(() => acknowledged.length, { timeout: 20_000 }).toBe(2)
    const stored = await storedEvents(workshop, pourId)
    expect(stored.map((e) => e.id)).toEqual(acknowledged)
    expect(stored.map((e) => e.type)).toEqual(['mould_ready', 'weighed'])

    await page.reload()
    await expect(head).toHaveText('Weigh the plaster')
  },
)

test('two pages on one pour: each step shows on the other, clocks agree to the second', async ({
  context,
  page,
  open,
}) => {
  await open(page, '/plan')
  await planOne(page, 'Two tablets')
  const other = await context.newPage()
  await open(other, new URL(page.url()).pathname)
  const [here, there] = [page, other].map((p) => p.getByRole('heading', { level: 1 }))
  await expect(there!).toHaveText('Get the mould ready')
  for (const [knocker, next] of [
    [page, 'Weigh the water'],
    [other, 'Weigh the plaster'],
    [page, 'Ready to sift'],
    [other, 'Sift the plaster in'],
  ] as const) {
    await knock(knocker)
    await expect(here!).toHaveText(next)
    await expect(there!).toHaveText(next)
  }
  const left = async (p: typeof page) => {
    const [min, sec] = (await p.getByRole('timer').locator('.figure').innerText()).split(':').map(Number)
    return min! * 60 + sec!
  }
  const [a, b] = await Promise.all([left(page), left(other)])
  expect(Math.abs(a - b)).toBeLessThanOrEqual(1)
})

test('a plan changed in two windows: the second is told, and nothing typed is lost', async ({
  context,
  page,
  open,
}) => {
  await open(page, '/plan')
  const id = await planOne(page, 'Stale plan')
  const other = await context.newPage()
  await open(page, `/plan?pour=${id}`)
  await open(other, `/plan?pour=${id}`)
  for (const window of [page, other]) {
    await part(window, 'mould')
    await window.getByRole('button', { name: 'Known' }).click()
  }
  await other.getByLabel('It holds').fill('3 l')
  await other.getByRole('button', { name: 'Keep this plan' }).click()
  await other.waitForURL(/\/pour\//)
  await page.getByLabel('It holds').fill('4 l')
  await page.getByRole('button', { name: 'Keep this plan' }).click()
  await expect(page.getByRole('alert')).toContainText('Somebody else changed this plan')
  await expect(page.getByLabel('It holds')).toHaveValue('4.00 l')
})

test('a browser that lets nothing be kept, on a page that did not come by https, works all the same, and says what goes with the window', async ({
  page,
  workshop,
}) => {
  await page.addInitScript(() => {
    const denied = () => {
      throw new DOMException('denied', 'SecurityError')
    }
    for (const name of ['localStorage', 'sessionStorage', 'indexedDB'])
      Object.defineProperty(window, name, { get: denied })
    window.BroadcastChannel = class {
      constructor() {
        denied()
      }
    } as never
    navigator.locks.request = () => Promise.reject(new DOMException('denied', 'SecurityError'))
    const missing = [
      [Crypto.prototype, ['randomUUID', 'subtle']],
      [Navigator.prototype, ['clipboard', 'wakeLock', 'serial', 'mediaDevices', 'serviceWorker']],
    ] as const
    for (const [of, names] of missing) for (const name of names) Reflect.deleteProperty(of, name)
  })
  await page.goto(`${workshop.address}/plan`)
  await page.getByRole('button', { name: /I have read/ }).click()
  await expect(page.getByText('This browser is told to keep nothing')).toBeVisible()
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Held by nobody')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  await page.waitForURL(/\/pour\//)
  await knock(page)
  await expect.poll(() => storedEvents(workshop, pourIdOf(page))).toHaveLength(1)
})

test('what cannot be read is said at the field and stays there', async ({ page, open }) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByRole('button', { name: 'Known' }).click()
  const holds = page.getByLabel('It holds')
  for (const [typed, message] of [
    ['plenty', 'I cannot read that'],
    ['-3 l', 'I cannot read that'],
    ['0', 'At least'],
    ['1,500', 'two ways'],
    ['3 kg', 'measures something else'],
    ['99999999999 l', 'too large'],
  ] as const) {
    await holds.fill(typed)
    await expect(page.getByRole('alert')).toContainText(message)
    await expect(holds).toHaveValue(typed)
    await expect(page.getByRole('button', { name: 'Take it to the bench' })).toBeDisabled()
  }
  // Either reading is one press away, and says which it was.
  await holds.fill('1/2 gal')
  await expect(page.getByRole('alert')).toContainText('two ways')
  await page.getByRole('button', { name: '1/2 US gallon' }).click()
  await expect(page.getByText('Read as gallon, US, 3785.4 ml')).toBeVisible()
  await expect(page.getByRole('alert')).toBeHidden()
  await part(page, 'plaster')
  await page.getByLabel('Consistency', { exact: true }).first().focus()
  await page.getByRole('textbox', { name: 'Consistency' }).fill('17')
  await expect(page.getByText('cannot harden')).toBeVisible()
  await page.reload()
  await part(page, 'mould')
  await expect(page.getByLabel('It holds')).toHaveValue('1.89 l')
})
