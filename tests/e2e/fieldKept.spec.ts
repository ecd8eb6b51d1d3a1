import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { MS_PER } from '../../core/units'
import { demoPrint } from '../../server/demo/print'
import { testPlan } from '../unit/plans'
import { fetchAll, head, opened, phone } from './fieldPhone'
import { expect, knock, own, pool, storedEvents, type OwnWorkshop } from './fixtures'

own.use({ serviceWorkers: 'allow' })

async function newPour({ address }: OwnWorkshop): Promise<string> {
  const id = randomUUID()
  const answer = await fetch(`${address}/api/pours`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id, plan: testPlan() }),
  })
  expect(answer.status).toBe(200)
  return id
}
async function newPrint({ address }: OwnWorkshop): Promise<string> {
  const id = randomUUID()
  const { mould } = demoPrint(Date.now(), randomUUID())
  const answer = await fetch(`${address}/api/moulds/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      revision: null,
      mould: { ...mould, usualPlasterId: null, find: { ...mould.find, shots: [] } },
    }),
  })
  expect(answer.status).toBe(200)
  return id
}
/** Of a picture that hardly packs: noise. */
const noisy = () =>
  sharp({
    create: {
      width: 900,
      height: 700,
      channels: 3,
      background: '#888',
      noise: { type: 'gaussian', mean: 120, sigma: 60 },
    },
  })
    .jpeg({ quality: 90 })
    .toBuffer()
const showPrint = (page: Page, printId: string) =>
  opened(page, `${new URL(page.url()).origin}/field/prints/${printId}`)
const photograph = async (page: Page) =>
  page
    .getByLabel('Photograph of the print')
    .and(page.locator('input'))
    .setInputFiles({ name: 'print.jpg', mimeType: 'image/jpeg', buffer: await noisy() })
const photosOf = async ({ db }: OwnWorkshop) => (await db.selectFrom('photo').select('id').execute()).length
const home = async (page: Page) => {
  await page.context().setOffline(false)
  await expect(page.getByText(/Not connected/)).toBeHidden()
}

own(
  'what a device cannot keep, loses, or has wrong: its room, its storage, its clock, its lid',
  async ({ browser, workshop }) => {
    const [id, print] = [await newPour(workshop), await newPrint(workshop)]
    const page = await phone(browser, workshop, 'Ana')
    await fetchAll(page)
    const origin = new URL(workshop.address).origin

    await own.step(
      'it is put on the device once the browser offers that, when the caster wishes',
      async () => {
        const put = page.getByRole('button', { name: 'Put it on this device' })
        await expect(put).toBeHidden()
        const isHeldBack = await page.evaluate(() => {
          const prompt = () => Promise.resolve(document.documentElement.setAttribute('data-prompted', ''))
          const offer = Object.assign(new Event('beforeinstallprompt', { cancelable: true }), { prompt })
          dispatchEvent(offer)
          return offer.defaultPrevented
        })
        expect(isHeldBack).toBe(true)
        await put.click()
        await expect(page.locator('html[data-prompted]')).toBeVisible()
        await expect(put).toBeHidden()
      },
    )

    await own.step('its room is full: said, held by the window, and sent all the same', async () => {
      await opened(page, `${workshop.address}/pour/${id}`)
      await expect(head(page)).toHaveText('Get the mould ready')
      await page.context().setOffline(true)
      await showPrint(page, print)
      // The browser's own tools do not make it full: its database says that it is.
      await page.evaluate(() => {
        for (const way of ['put', 'add'] as const)
          IDBObjectStore.prototype[way] = () => {
            throw new DOMException('no room', 'QuotaExceededError')
          }
      })
      await photograph(page)

      await expect(page.getByText(/This browser does not keep what you record/)).toBeVisible()
      await home(page)
      await expect.poll(() => photosOf(workshop)).toBe(1)
      await expect(page.getByText(/This browser does not keep what you record/)).toBeHidden()
    })

    await own.step(
      'the lid is closed in the middle of sending: it goes once, when it is opened',
      async () => {
        await page.context().setOffline(true)
        await showPrint(page, print)
        await photograph(page)
        await expect(page.getByRole('group', { name: /Photograph of the print/ })).toBeVisible()
        // What is on its way never arrives anywhere.
        const onItsWay = page.waitForRequest(/\/api\/photos\?/)
        await page.context().route(/\/api\/photos\?/, () => undefined)
        await page.context().setOffline(false)
        await onItsWay
        await page.close()
      },
    )
    const again = await browser.contexts().at(-1)!.newPage()
    await again.context().unroute(/\/api\/photos\?/)
    await opened(again, `${workshop.address}/field`)
    await expect.poll(() => photosOf(workshop)).toBe(2)

    await own.step(
      'everything is cleared away by the browser: once online it is all here again by itself',
      async () => {
        const tools = await again.context().newCDPSession(again)
        await tools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' })
        await again.evaluate(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
        await opened(again, `${workshop.address}/field`)
        await expect(again.getByText('Opens without a network')).toBeVisible()
        await expect(again.locator('li', { hasText: 'Pours on the go' })).toContainText('1 of 1')
        await again.context().setOffline(true)
        await opened(again, `${workshop.address}/pour/${id}`)
        await expect(head(again)).toHaveText('Get the mould ready')
      },
    )

    await own.step(
      'its clock is three hours off: what is recorded out there has the workshop’s time',
      async () => {
        await home(again)
        await again.context().addInitScript((offMs) => {
          const Real = Date
          const now = () => Real.now() + offMs
          globalThis.Date = new Proxy(Real, {
            construct: (of, args: []) => (args.length > 0 ? new of(...args) : new of(now())),
            get: (of, key) => (key === 'now' ? now : Reflect.get(of, key)),
          })
        }, 3 * MS_PER.h)
        await opened(again, `${workshop.address}/pour/${id}`)
        await expect(pool(again)).toBeVisible()
        await again.context().setOffline(true)
        await opened(again, `${workshop.address}/pour/${id}`)
        await knock(again)
        await expect(head(again)).toHaveText('Weigh the water')
        await home(again)
        await expect
          .poll(async () => (await storedEvents(workshop, id)).some((e) => e.type === 'mould_ready'))
          .toBe(true)
        const event = (await storedEvents(workshop, id)).find((e) => e.type === 'mould_ready')!
        expect(Math.abs(event.occurred_at.getTime() - Date.now())).toBeLessThan(MS_PER.min)
      },
    )
    await again.context().close()
  },
)

own(
  'a browser that keeps nothing says so, and works as long as its window stands',
  async ({ browser, workshop }) => {
    const id = await newPour(workshop)
    const context = await browser.newContext({
      serviceWorkers: 'allow',
      viewport: { width: 390, height: 844 },
    })
    await context.addInitScript(() => {
      Object.defineProperty(globalThis, 'indexedDB', {
        value: {
          open: () => {
            throw new DOMException('no', 'SecurityError')
          },
        },
      })
      localStorage.setItem('nine-ripples.caution-read', 'true')
    })
    const page = await context.newPage()
    await opened(page, `${workshop.address}/pour/${id}`)
    await context.setOffline(true)
    await knock(page)
    await expect(head(page)).toHaveText('Weigh the water')
    await expect(page.getByText(/This browser does not keep what you record/)).toBeVisible()
    await home(page)
    await expect
      .poll(async () => (await storedEvents(workshop, id)).map((e) => e.type))
      .toEqual(['mould_ready'])
    await context.close()
  },
)
