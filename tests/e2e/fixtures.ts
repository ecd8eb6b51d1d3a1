import { test as base, expect, type BrowserContext, type Page } from '@playwright/test'
import type { Opened } from '../../app/plan/parts'
import { workshopCookie } from '../../shared/place'
import { createTestDatabase } from '../support/database'
import { freePort, startServer, type TestServer } from '../support/server'
import { closeShared, makeSharedWorkshop } from '../support/sharedServer'

type TestDatabase = Awaited<ReturnType<typeof createTestDatabase>>

export interface Workshop {
  address: string
  db: TestDatabase['db']
  /** As the owner, whom no row security holds. */
  owner: TestDatabase['owner']
  /** What a request that no page makes says of where it goes. */
  headers: Record<string, string>
  /** Takes a browser there. */
  enter: (context: BrowserContext) => Promise<void>
}

/** One whose server nobody else is at. */
export interface OwnWorkshop extends Workshop {
  databaseUrl: string
  server: TestServer
  /** Where devices connect. */
  devicePort: number
  /** Ends the server and starts it again on the same address, or another build of it. */
  restart: (signal: 'SIGTERM' | 'SIGKILL', entry?: string) => Promise<void>
}

interface Fixtures {
  /** Whether the demo workshop is loaded. */
  demo: boolean
  /** Whether others of the same worker are at the same workshop: for tests that only look, or mind nobody else's pours. */
  shared: boolean
  workshop: Workshop
  /** Addresses outside this machine that any page asked for. */
  strayRequests: string[]
  open: (page: Page, path: string) => Promise<void>
}

async function openOwn(demo: boolean): Promise<OwnWorkshop & { close: () => Promise<void> }> {
  const database = await createTestDatabase({ demo })
  const devicePort = await freePort()
  let server = await startServer(database.url, { devicePort })
  const port = Number(new URL(server.address).port)
  return {
    address: server.address,
    databaseUrl: database.url,
    db: database.db,
    owner: database.owner,
    headers: {},
    enter: () => Promise.resolve(),
    devicePort,
    get server() {
      return server
    },
    restart: async (signal, entry) => {
      await server.stop(signal)
      server = await startServer(database.url, { port, devicePort, entry })
    },
    close: async () => {
      await server.stop()
      await database.drop()
    },
  }
}

/** Workshops that tests of this worker share, with the demo and without. */
const kept = new Map<boolean, Promise<Workshop>>()

/** At the server that is there for all. */
async function openShared(demo: boolean): Promise<Workshop> {
  const { address, workshopId, db, owner } = await makeSharedWorkshop({ demo })
  const name = workshopCookie(new URL(address).port)
  return {
    address,
    db,
    owner,
    headers: { cookie: `${name}=${workshopId}` },
    enter: (context) => context.addCookies([{ name, value: workshopId, url: address, sameSite: 'Strict' }]),
  }
}

/** A workshop of its own for each test, where it does not share one; pages that know the caution already and may reach nothing else. */
export const test = base.extend<Fixtures, { keeper: void }>({
  demo: [false, { option: true }],
  shared: [false, { option: true }],
  keeper: [
    // eslint-disable-next-line no-empty-pattern -- whoever keeps them needs nothing
    async ({}, use) => {
      await use()
      await closeShared()
    },
    { scope: 'worker', auto: true },
  ],
  workshop: async ({ demo, shared }, use) => {
    if (!shared) return use(await openShared(demo))
    const workshop = kept.get(demo) ?? openShared(demo)
    kept.set(demo, workshop)
    await use(await workshop)
  },
  strayRequests: [
    async ({ context, workshop }, use) => {
      await workshop.enter(context)
      const stray: string[] = []
      context.on('request', (request) => {
        const url = request.url()
        if (!url.startsWith(workshop.address) && !/^(data|blob):/.test(url)) stray.push(url)
      })
      await use(stray)
      expect(stray).toEqual([])
    },
    { auto: true },
  ],
  open: async ({ workshop }, use) => {
    await use(async (page, path) => {
      await page.addInitScript(() => {
        localStorage.setItem('nine-ripples.caution-read', 'true')
        localStorage.setItem('nine-ripples.sound', 'false')
      })
      await workshop.enter(page.context())
      await page.goto(`${workshop.address}${path}`)
      await page.locator('html[data-mounted]').waitFor()
    })
  },
})

/** With a database and a server of its own: for tests with devices, or that end them. */
export const own = test.extend<{ workshop: OwnWorkshop }>({
  workshop: async ({ demo }, use) => {
    const workshop = await openOwn(demo)
    await use(workshop)
    await workshop.close()
  },
})

export { expect }

/** The application as its root element holds it. */
type Root = Element & {
  __vue_app__: {
    $nuxt: { hooks: { hookOnce: (name: 'page:finish', then: () => void) => void } }
    config: { globalProperties: { $router: { push: (path: string) => Promise<unknown> } } }
  }
}
/** To another view of a page that is open, as its links go: nothing is loaded anew, which most of the time goes to. */
export async function go(page: Page, path: string): Promise<void> {
  await page.evaluate(async (to) => {
    const { $nuxt, config } = (document.querySelector('#__nuxt') as Root).__vue_app__
    const there = new Promise<void>((resolve) => $nuxt.hooks.hookOnce('page:finish', resolve))
    await config.globalProperties.$router.push(to)
    await there
  }, path)
}

/** On the plan's page: opens the editor of a part of its sentence, or what there is to look into, where it is not open yet. */
export async function part(page: Page, opened: Opened): Promise<void> {
  const says = page.locator(`[data-part="${opened}"]`)
  if ((await says.getAttribute('aria-expanded')) !== 'true') await says.click()
}

/** The big target of the live run. */
export const pool = (page: Page) => page.locator('[data-pool]')

/** Sooner than this a second knock is the same elbow (app/run/knock/useKnock.ts). */
const ANOTHER_KNOCK_MS = 720
const knocked = new WeakMap<Page, number>()
/** A short touch of it, late enough to be another: held down longer it would take back, which a slow machine makes of it. */
export async function knock(page: Page): Promise<void> {
  const afterMs = (knocked.get(page) ?? 0) + ANOTHER_KNOCK_MS
  await page.waitForFunction((ms) => Date.now() > ms, afterMs, { polling: 50 })
  await pool(page).click()
  knocked.set(page, Date.now())
}

/** Every event of a pour that the database holds, oldest first. */
export async function storedEvents(workshop: Pick<Workshop, 'db'>, pourId: string) {
  return workshop.db
    .selectFrom('event')
    .selectAll()
    .where('pour_id', '=', pourId)
    .orderBy('occurred_at')
    .orderBy('received_at')
    .execute()
}

export function pourIdOf(page: Page): string {
  return new URL(page.url()).pathname.split('/').at(-1)!
}

/** What a browser holds that was recorded in it and not sent yet, as if it had been away for long. */
export async function keepUnsent(page: Page, rows: readonly { pourId: string; event: object }[]) {
  await page.evaluate(async (unsent) => {
    const open = indexedDB.open('nine-ripples', 1)
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const tx = db.transaction('unsent', 'readwrite')
    for (const row of unsent) tx.objectStore('unsent').add({ ...row, settingMs: 0 })
    await new Promise((resolve) => (tx.oncomplete = resolve))
    db.close()
  }, rows)
}
