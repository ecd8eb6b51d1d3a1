/**
 * Takes the pictures of docs/screenshots from a running Nine Ripples with fresh demo data.
 * Usage: ./bin/start --reset-demo (elsewhere), then: npx tsx scripts/screenshots.ts [folder] [address]
 */
import { chromium, type Page } from '@playwright/test'
import type { CastPage } from '../shared/records'
import type { MouldCard } from '../shared/moulds'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'

const folder = process.argv[2] ?? 'docs/screenshots'
const address = process.argv[3] ?? 'http://127.0.0.1:4310'
const only = process.argv[4]

const { items } = (await (await fetch(`${address}/api/pours?limit=100`)).json()) as CastPage
const pourId = (piece: string) => items.find((c) => c.piece.startsWith(piece))!.id

const { items: moulds } = (await (await fetch(`${address}/api/moulds?limit=100`)).json()) as {
  items: MouldCard[]
}
const mouldId = (name: string) => moulds.find((m) => m.name.startsWith(name))!.id

/** The demo's stand-ins are steered two ports further on (bin/start). */
const steer = new URL(address)
steer.port = String(Number(steer.port) + 2)
async function act(standIn: string, what: object) {
  await fetch(`${steer.origin}/act/${standIn}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(what),
  })
}

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }
const VIEWS: [name: string, path: string, size: typeof DESK][] = [
  ['bench', '/', DESK],
  ['bench-phone', '/', PHONE],
  ['plan', '/plan', DESK],
  ['plan-phone', '/plan', PHONE],
  ['quick', '/quick', DESK],
  ['plasters', '/plasters', DESK],
  ['pour-weigh', `/pour/${pourId('Lamp-oil jug')}`, DESK],
  ['pour-fix', `/pour/${pourId('Lamp-oil jug')}`, DESK],
  ['pour-soak-phone', `/pour/${pourId('Chart tile B4')}`, PHONE],
  ['pour-set', `/pour/${pourId('Ammonite')}`, DESK],
  ['pour-dry', `/pour/${pourId('Tide-clock')}`, DESK],
  ['wall', '/wall', { width: 1920, height: 1080 }],
  ['casts', '/casts', DESK],
  ['cast', `/casts/${pourId('Chart tile A2')}`, { width: 1280, height: 1280 }],
  ['figures', '/casts/figures', DESK],
  ['moulds', '/moulds', DESK],
  ['mould', `/moulds/${mouldId('Sea urchin')}`, DESK],
  ['field-print', `/field/prints/${mouldId('Gull, by')}`, DESK],
  ['mould-edit', `/moulds/${mouldId('Gull’s egg')}/edit`, DESK],
]

/** Everything has arrived and been laid out: fonts, figures, no request under way. */
async function settled(page: Page) {
  await page.locator('html[data-mounted]').waitFor()
  await page.locator('h1').first().waitFor()
  await page.waitForFunction(
    () =>
      document.fonts.status === 'loaded' &&
      !/…/.test(document.querySelector('h1')!.textContent!) &&
      !/(Fetching|Looking|Working out)/.test(document.querySelector('main')!.innerText),
  )
}

const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
for (const [name, path, viewport] of VIEWS.filter(([n]) => !only || n.startsWith(only))) {
  const context = await browser.newContext({ viewport })
  await context.addInitScript(() => {
    localStorage.setItem('nine-ripples.caution-read', 'true')
    localStorage.setItem('nine-ripples.sound', 'false')
  })
  const page = await context.newPage()
  page.on('pageerror', (error) => console.log(`${name}: ${error.message}`))
  page.on('console', (m) => m.type() === 'error' && console.log(`${name}: ${m.text()}`))
  await page.goto(`${address}${path}`)
  await settled(page)
  if (path.startsWith('/casts')) await page.locator('canvas, tbody tr, .charts a').first().waitFor()
  if (name === 'cast') await page.waitForFunction(() => document.querySelector('img')?.complete)
  if (name === 'figures') await page.getByText('Not tapped').waitFor()
  if (name === 'plasters') await page.getByText('How fast it sets: the pours').first().click()
  if (name === 'pour-set') {
    // Its curve is drawn, and what its thermometer says is learnt from.
    await page.locator('canvas').last().waitFor()
    await page.getByText('By the thermometer:').waitFor()
  }
  if (name === 'mould-edit') {
    // The drawing board, which is the second way this mould was found.
    await page.getByRole('button', { name: /^≟/ }).click()
    await page.getByRole('group', { name: 'How the volume is found' }).scrollIntoViewIfNeeded()
    await page.locator('.helper').evaluate((el) => el.scrollIntoView())
  }
  if (name === 'quick') {
    for (const answer of [/pour water into it/, /Bag by the door/, /By eye/, /Islands/])
      await page.getByRole('radio', { name: answer }).check()
    await page.getByLabel('Water that went in').fill('1.5 l')
    await page.evaluate(() => scrollTo(0, 0))
  }
  if (name === 'pour-weigh') {
    // A bowl is put on, zeroed, and two thirds filled.
    await act('shed-scale', { do: 'clear' })
    await act('shed-scale', { do: 'add', massG: 236 })
    await page.getByText('stand the bowl on it').waitFor()
    await act('shed-scale', { do: 'tare' })
    await page.getByText('Nothing in it yet').waitFor()
    await act('shed-scale', { do: 'add', massG: 1900 })
    await page.getByText('Go on', { exact: true }).waitFor()
    await page.getByText('1005 g').waitFor()
  }
  if (name === 'pour-fix') {
    // Looked at, not recorded: the pour stays as it was.
    await page.getByRole('button', { name: 'Put right' }).click()
    await page.getByLabel('Water really in it').fill('2300')
    await page.waitForFunction(() => !document.querySelector('.p-dialog-enter-active'))
  }
  await page.screenshot({ path: `${folder}/${name}.png` })
  await context.close()
}
await browser.close()
