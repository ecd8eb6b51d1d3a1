import { chromium } from '@playwright/test'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'
import { rank, type Measured } from './measured'

const SLOWER = 4
const STARTS = 7

/** As text: the script's own compiler adds helpers that the page does not have. */
const COPIED = `(async () => {
  const opened = (request) => new Promise((resolve) => { request.onsuccess = () => resolve(request.result) })
  const { name } = (await indexedDB.databases()).find((d) => d.name.startsWith('nine-ripples.copy')) ?? {}
  if (!name) return 0
  const db = await opened(indexedDB.open(name))
  const kinds = await opened(db.transaction('copy').objectStore('copy').getAllKeys())
  db.close()
  return kinds.filter(([kind]) => kind === 'forecast').length
})()`
const WATCH = `(() => {
  const look = () => {
    if (document.querySelector('.hero')) window.benchMs = performance.now()
    else requestAnimationFrame(look)
  }
  requestAnimationFrame(look)
})()`

/** The bench opened without a network, on a processor four times slower. @param address of a server with the demo. */
export async function benchAway(address: string): Promise<Measured[]> {
  const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  await context.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
  const page = await context.newPage()
  await page.goto(`${address}/field`)
  await page.getByText('Opens without a network').waitFor()
  await page.getByRole('button', { name: /Fetch/ }).click()
  await page.getByText(/Fetched/).waitFor()
  await page.goto(address)
  await page.locator('.hero').waitFor()
  const onTheGo = Number(/(\d+) on the go/.exec(await page.locator('.rest').innerText())![1])
  while ((await page.evaluate<number>(COPIED)) < onTheGo) await page.waitForTimeout(500)
  await page.close()
  await context.setOffline(true)
  const times: number[] = []
  while (times.length < STARTS) {
    const away = await context.newPage()
    const session = await context.newCDPSession(away)
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER })
    await away.addInitScript({ content: WATCH })
    await away.goto(address)
    await away.waitForFunction(() => 'benchMs' in window, undefined, { polling: 250 })
    times.push(await away.evaluate<number>('window.benchMs'))
    await away.close()
  }
  await browser.close()
  const what = `bench of ${onTheGo} pours out of reach, ${SLOWER} × slower`
  return [{ what, value: rank(times, 0.5), unit: 'ms', most: 1500 }]
}
