import { randomUUID } from 'node:crypto'
import { outlookFrom, viewPour } from '../../core/pour'
import { listOpen } from '../../server/services/pours/pourRecords'
import { createPour, recordEvent } from '../../server/services/pours/pours'
import { CLOCK_WORDS, LATE_WORDS } from '../../app/parts/words/pour'
import { expect, pool, test } from './fixtures'

test.use({ demo: true })

const SPEED = 120
const HOUR_MS = 3_600_000

test('an hour of the whole bench in half a minute: each prompt once, none missed, and nothing of it reaches the workshop', async ({
  page,
  open,
  workshop,
}) => {
  const countEvents = async () =>
    Number(
      (await workshop.db
        .selectFrom('event')
        .select((e) => e.fn.countAll().as('n'))
        .executeTakeFirst())!.n,
    )
  // A twelfth, a quarter of an hour behind its like.
  const first = (await listOpen(workshop.db, { after: '', limit: 100 })).items.flatMap((p) =>
    'plan' in p && p.plan.piece.startsWith('Ammonite') ? [p] : [],
  )[0]!
  const twelfth = randomUUID()
  await createPour(workshop.db, twelfth, { ...first.plan, piece: 'Ammonite, the twelfth' })
  for (const e of first.events) {
    const later = { ...e, id: randomUUID(), occurredAtMs: e.occurredAtMs + 15 * 60_000 }
    await recordEvent(workshop.db, twelfth, later, Date.now())
  }
  const before = await countEvents()
  // A voice of this machine's own that is written down instead of heard.
  await page.addInitScript(() => {
    const said: string[] = []
    Object.assign(window, {
      said,
      SpeechSynthesisUtterance: class {
        constructor(readonly text: string) {}
      },
    })
    Object.defineProperty(window, 'speechSynthesis', {
      value: {
        speaking: false,
        getVoices: () => [{ localService: true }],
        speak: (u: { text: string }) => said.push(u.text),
      },
    })
  })
  await open(page, `/?rehearse=${SPEED}`)
  await page.addInitScript(() => localStorage.setItem('nine-ripples.sound', 'true'))
  const reloadMs = Date.now()
  await page.reload()
  await page.locator('html[data-mounted]').waitFor()
  await expect(page.getByText(`${SPEED} times as fast`)).toBeVisible()
  await expect(page.getByRole('heading', { level: 1, name: 'Bench' })).toBeVisible()
  const startMs = Date.now()
  // Its hour began somewhere between the two: so late it may be there already.
  const thereMs = reloadMs + SPEED * (startMs - reloadMs)

  const pours = (await listOpen(workshop.db, { after: '', limit: 100 })).items.flatMap((p) =>
    'plan' in p ? [p] : [],
  )
  expect(pours.length).toBeGreaterThanOrEqual(12)
  const endMs = reloadMs + HOUR_MS
  const sayings = pours.flatMap(({ plan, events, revision }) => {
    const view = viewPour(outlookFrom(plan, events, revision), startMs)
    const clocks = [view.clock, ...view.otherClocks.filter((c) => c.id === 'soft_window')]
    return clocks.flatMap((c) =>
      c
        ? [
            { text: `${plan.piece}: ${CLOCK_WORDS[c.id]}`, atMs: c.dueMs, untilMs: c.untilMs ?? endMs },
            {
              text: `${plan.piece}: late. ${LATE_WORDS[c.id]}`,
              atMs: c.dueMs + 30_000,
              untilMs: c.untilMs ?? endMs,
            },
          ]
        : [],
    )
  })
  // What falls at its very ends is not asked about, nor what stands for less than two seconds here: between two looks.
  const sure = sayings.filter(
    (s) => s.atMs > thereMs + SPEED * 1000 && s.atMs < Math.min(endMs, s.untilMs) - SPEED * 2000,
  )
  // Of both kinds, however old the demo is by now: what falls due, and what is late.
  const isLate = ({ text }: { text: string }) => text.includes(': late.')
  expect(sure.filter(isLate).length).toBeGreaterThan(0)
  expect(sure.filter((s) => !isLate(s)).length).toBeGreaterThan(0)
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { said: string[] }).said), { timeout: 75_000 })
    .toEqual(expect.arrayContaining(sure.map((s) => s.text)))
  // The rest of the hour brings nothing a second time.
  await page.waitForFunction((ms) => performance.now() > ms, HOUR_MS / SPEED, { timeout: 75_000 })
  const said = await page.evaluate(() => (window as unknown as { said: string[] }).said)
  expect(new Set(said).size).toBe(said.length)

  // Knocked at, a pour goes on here, and here alone; a reload leaves it a rehearsal.
  const jug = pours.find((p) => p.plan.piece.startsWith('Corbel'))!
  await page.goto(`${workshop.address}/pour/${jug.id}`)
  await page.locator('html[data-mounted]').waitFor()
  const head = page.getByRole('heading', { level: 1 })
  await expect(head).toHaveText('Get the mould ready')
  await pool(page).click()
  await expect(head).toHaveText('Weigh the water')
  expect(await countEvents()).toBe(before)
  await page.getByRole('button', { name: 'End it' }).click()
  await expect(page.getByText(`${SPEED} times as fast`)).toHaveCount(0)
  await page.goto(`${workshop.address}/pour/${jug.id}`)
  await expect(head).toHaveText('Get the mould ready')
  expect(await countEvents()).toBe(before)

  // Back at the real bench its clocks are the workshop's, to the second.
  await page.goto(workshop.address)
  const twelve = pours.find((p) => p.plan.piece.startsWith('Ammonite, the'))!
  const clock = viewPour(outlookFrom(twelve.plan, twelve.events, twelve.revision), Date.now()).clock!
  const shown = page.getByRole('link', { name: /Ammonite, the twelfth/ }).locator('.time')
  await expect(shown).toHaveText(/^\d+:\d\d$/)
  // Read until it was read at once: a machine that is busy shows a second late, never a clock that goes wrong.
  const offS = () =>
    shown.evaluate((e, dueMs) => {
      const [min, s] = e.textContent.split(':').map(Number)
      return Math.abs(min! * 60 + s! - (dueMs - Date.now()) / 1000)
    }, clock.dueMs)
  await expect.poll(offS).toBeLessThan(1.5)
})
