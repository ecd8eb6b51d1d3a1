/**
 * Measures what docs/performance.md states, on this machine, and prints it as a table with its ratio to the target.
 * Usage: npm run bench, which is ./bin/test --bench: it brings the build and the throw-away database.
 */
import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { gzipSync } from 'node:zlib'
import autocannon from 'autocannon'
import { chromium, type Page } from '@playwright/test'
import { findVolume, type ProfileNode } from '../core/mould'
import { learnFrom } from '../core/learn'
import { compareSchools, diagnosePour, evaluatePlan, outlookFrom, keepPlan, tradeOffs } from '../core/pour'
import { listOpen } from '../server/services/pours/pourRecords'
import { createPour, recordEvent } from '../server/services/pours/pours'
import { createTestDatabase } from '../tests/support/database'
import { startServer } from '../tests/support/server'
import { testPlan, wholeRun } from '../tests/unit/plans'
import { go } from '../tests/e2e/fixtures'
import { CHROMIUM_ARGS, CHROMIUM_PATH } from './chromium'
import { benchAway } from './benchAway'
import { benchDevices } from './benchDevices'
import { benchHeat } from './benchHeat'
import { benchPlan } from './benchPlan'
import { benchServer } from './benchServer'
import { benchWorkshops } from './benchWorkshops'
import { loadDemo } from '../server/demo'
import { medianMs } from './median'

const rows: [what: string, measured: number, unit: string, target: number, with100?: number][] = []

/** Frames of a page while something goes on in it. */
async function framesDuring(page: Page, doing: () => Promise<void>) {
  // As text: the script's own compiler adds helpers that the page does not have.
  await page.evaluate(`
    window.frames_ = []
    if (!window.counting_) {
      window.counting_ = true
      requestAnimationFrame(function tick(ms) { window.frames_.push(ms); requestAnimationFrame(tick) })
    }`)
  await doing()
  const frames = await page.evaluate<number[]>('window.frames_')
  const gaps = frames
    .slice(1)
    .map((at, i) => at - frames[i]!)
    .sort((a, b) => a - b)
  const at = (share: number) => gaps[Math.floor(gaps.length * share)]!
  return { meanMs: gaps.reduce((sum, gap) => sum + gap, 0) / gaps.length, p95Ms: at(0.95), p99Ms: at(0.99) }
}

async function lanesShown(page: Page, address: string): Promise<number> {
  await page.goto(address)
  await page.getByTestId('lane').first().waitFor()
  return page.getByTestId('lane').count()
}

const plan = testPlan()
const run = wholeRun()
const kept = keepPlan(plan)
rows.push(...benchHeat())
rows.push(['one full plan evaluation, median', medianMs(() => evaluatePlan(plan), 500), 'ms', 5])
/** Eight bowls of a large filled mould, warm water, its schools side by side and the curves under the slider. */
const large = testPlan('pottery', {
  mould: { ...plan.mould, cavityMl: 12_000 },
  batching: {
    split: { by: 'need' },
    bowl: { name: 'Basin', volumeMl: 4000, tareG: 236 },
    pourRateMlMin: 1500,
    scaleCapacityG: 3000,
  },
  taps: { coldTempC: 12, hotTempC: 55, targetTempC: 22 },
})
rows.push([
  'full plan with bowls, comparison and curves, median',
  medianMs(() => {
    evaluatePlan(large)
    compareSchools(large, 74)
    tradeOffs(large)
  }, 500),
  'ms',
  8,
])
rows.push([
  'one drying pour folded from its events, median',
  medianMs(() => outlookFrom(kept, run), 500),
  'ms',
  20,
])

const faulty = outlookFrom(kept, [
  ...run,
  ...(['air_holes', 'voids', 'soft'] as const).map((kind, i) => ({
    id: randomUUID(),
    occurredAtMs: run.at(-1)!.occurredAtMs - 1000 + i,
    who: '',
    body: { type: 'defect' as const, kind },
  })),
])
rows.push([
  'why a piece with three faults came out so, median',
  medianMs(() => diagnosePour(faulty), 300),
  'ms',
  5,
])
const seenOften = Array.from({ length: 2000 }, (_, i) => ({
  pourId: String(i),
  atMs: i * 3_600_000,
  ratio: 1.2 + 0.1 * Math.sin(i),
  sigmaLn: 0.1,
}))
rows.push([
  'a factor learnt from 2 000 pours, median',
  medianMs(() => learnFrom('set_time', seenOften, 2000 * 3_600_000), 100),
  'ms',
  50,
])

/** A turned form of 200 points, half of them on curves, with a waist. */
const profile: ProfileNode[] = Array.from({ length: 200 }, (_, i) => ({
  radiusMm: 60 + 25 * Math.sin(i / 20),
  heightMm: i * 1.5,
  smooth: i % 2 === 1,
}))
const turned = { by: 'profile', outer: profile, inner: [], fillHeightMm: null } as const
rows.push([
  'volume of a profile of 200 points, checks and undercuts included, median',
  medianMs(() => findVolume({ ...turned, inner: [] }), 300),
  'ms',
  2,
])

const database = await createTestDatabase()
await loadDemo(database.db, Date.now())
const startedMs = performance.now()
const server = await startServer(database.url)
// Also when a measurement fails: nothing is left running.
process.on('exit', () => server.process.kill())
await fetch(server.address)
rows.push(['server start to first page', performance.now() - startedMs, 'ms', 5000])

const browser = await chromium.launch({ executablePath: CHROMIUM_PATH, args: CHROMIUM_ARGS })
const page = await (await browser.newContext()).newPage()
await page.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
const scripts = new Set<string>()
page.on('request', (request) => {
  // A link fetched ahead for another view is of type `other`.
  if (request.resourceType() === 'script') scripts.add(new URL(request.url()).pathname)
})
const openMs = performance.now()
await page.goto(server.address)
await page.locator('.hero').waitFor()
const firstView = [...scripts]
rows.push(['bench drawn, cold browser', performance.now() - openMs, 'ms', 1100])
const publicDir = new URL('../.output/public', import.meta.url).pathname
const gzipBytes = firstView.reduce((sum, path) => sum + gzipSync(readFileSync(publicDir + path)).length, 0)
rows.push(['JavaScript of the first view, gzip', gzipBytes / 1000, 'kB', 185])

// Once through ten pages everything is loaded; what a second and a third walk leave behind is never given back.
const PAGES = [
  '/plan',
  '/moulds',
  '/moulds/new',
  '/plasters',
  '/casts',
  '/casts/figures',
  '/settings',
  '/wall',
  '/safety',
  '/',
]
const heap = await page.context().newCDPSession(page)
async function heapAfterWalk(): Promise<number> {
  for (const path of PAGES) {
    await go(page, path)
    await page.getByRole('heading', { level: 1 }).first().waitFor()
  }
  await heap.send('HeapProfiler.collectGarbage')
  return (await heap.send('Runtime.getHeapUsage')).usedSize
}
const walked = await heapAfterWalk()
await heapAfterWalk()
rows.push(['heap after ten pages a third time, to the first', (await heapAfterWalk()) / walked, '×', 1.1])

await page.goto(`${server.address}/moulds/new`)
await page.getByRole('button', { name: 'Turned profile' }).click()
const csv = profile.map((n) => `${n.radiusMm},${n.heightMm},${n.smooth ? 'smooth' : ''}`).join('\n')
await page
  .getByLabel('Profile file')
  .setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) })
await page.getByText('200 points read.').waitFor()
const grip = page.getByRole('button', { name: /^Point 100 of 200/ })
await grip.scrollIntoViewIfNeeded()
const { x, y, width, height } = (await grip.boundingBox())!
await page.mouse.move(x + width / 2, y + height / 2)
await page.mouse.down()
const dragged = await framesDuring(page, async () => {
  for (let i = 0; i < 240; i++)
    await page.mouse.move(x + width / 2 + 30 * Math.sin(i / 10), y + height / 2 + 10 * Math.cos(i / 10))
})
await page.mouse.up()
rows.push(['frame while a point of 200 is dragged, mean', dragged.meanMs, 'ms', 16.7])
rows.push(['frame while a point of 200 is dragged, p95', dragged.p95Ms, 'ms', 33])

// Twelve lanes that move: every pour of the demo that is wet or sets, and as many again.
const open = await listOpen(database.db, { after: '', limit: 100 })
const moving = open.items.flatMap((p) =>
  'plan' in p && p.events.some((e) => e.body.type === 'sift_started') ? [p] : [],
)
for (let i = 0; (await lanesShown(page, server.address)) < 12 && i < 12; i++) {
  const copied = moving[i % moving.length]!
  const id = randomUUID()
  await createPour(database.db, id, { ...copied.plan, piece: `${copied.plan.piece}, again ${i}` })
  for (const e of copied.events.filter((e) => e.body.type !== 'demoulded' && e.body.type !== 'weighing'))
    await recordEvent(database.db, id, { ...e, id: randomUUID() }, Date.now())
}
const drawnMs = performance.now()
await page.goto(server.address)
await page.getByTestId('lane').nth(11).waitFor()
rows.push(['bench with 12 lanes drawn, warm browser', performance.now() - drawnMs, 'ms', 2000])
// Forty ticks of its clocks.
const ticking = await framesDuring(page, () => page.waitForTimeout(10_000))
rows.push(['frame of the bench with 12 lanes, mean', ticking.meanMs, 'ms', 17.5])
rows.push(['frame of the bench with 12 lanes, p99', ticking.p99Ms, 'ms', 50])
await browser.close()
for (const { what, value, unit, most } of [
  ...(await benchPlan(server.address)),
  ...(await benchAway(server.address)),
])
  rows.push([what, value, unit, most])

const load = await autocannon({ url: `${server.address}/api/bench?limit=50`, connections: 8, duration: 10 })
rows.push(['API bench of 11 pours with all events, p50 (8 connections)', load.latency.p50, 'ms', 50])
rows.push(['API bench of 11 pours with all events, p99 (8 connections)', load.latency.p99, 'ms', 200])
await server.stop()
await database.drop()
const ofServer = [...(await benchServer()), ...(await benchDevices()), ...(await benchWorkshops())]
for (const { what, value, unit, most, with100 } of ofServer) rows.push([what, value, unit, most, with100])

console.log('| what | measured | target | measured / target | to 100 pours |\n|---|---|---|---|---|')
for (const [what, measured, unit, target, with100] of rows) {
  const shown = measured < 10 ? measured.toFixed(2) : measured.toFixed(0)
  const ratio = with100 === undefined ? '' : `${(measured / with100).toFixed(1)} ×`
  console.log(
    `| ${what} | ${shown} ${unit} | ${target} ${unit} | ${(measured / target).toFixed(2)} | ${ratio} |`,
  )
}
console.log(`\n${firstView.length} scripts in the first view; ${load.requests.average} bench requests/s`)
