import type { Page } from '@playwright/test'
import { tilesPlan } from '../unit/plans'
import { expect, go, part, test } from './fixtures'
import { asPlanned, sendPour } from './sentPour'

test.use({ demo: true })

/** What of a page is cut, covered, too wide, or in a box that scrolls by itself. Runs in the page. */
async function layoutFaults() {
  const faults: string[] = []
  const root = document.documentElement
  const name = (e: Element) => `${e.tagName.toLowerCase()}.${e.getAttribute('class') ?? ''}`
  if (root.scrollWidth > innerWidth) {
    const wide = [...document.querySelectorAll('body *')].filter(
      (e) => e.getBoundingClientRect().right > innerWidth + 1,
    )
    faults.push(`too wide by ${root.scrollWidth - innerWidth} px: ${wide.map(name).slice(-5).join(', ')}`)
  }
  const isShown = (e: Element) => e.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true })
  for (const e of document.querySelectorAll<HTMLElement>('body *')) {
    if (!isShown(e) || e.clientHeight < 2 || e.clientWidth < 2) continue
    const { overflowX, overflowY } = getComputedStyle(e)
    const [across, down] = [e.scrollWidth - e.clientWidth, e.scrollHeight - e.clientHeight]
    if ((/auto|scroll/.test(overflowX) && across > 4) || (/auto|scroll/.test(overflowY) && down > 4))
      faults.push(`scrolls by itself: ${name(e)}`)
    if (/hidden|clip/.test(overflowX) && across > 2 && e.innerText.trim() !== '')
      faults.push(`cut: ${name(e)} "${e.innerText.slice(0, 40)}"`)
  }
  const paints = (e: Element) => {
    const { backgroundColor, backgroundImage } = getComputedStyle(e)
    return backgroundImage !== 'none' || !/(^|, )0\)$|transparent/.test(backgroundColor)
  }
  // Every line of text is seen, uncovered, at some place to which the page can be scrolled.
  const unseen = new Map<Text, Element>()
  const over = new Map<Text, Element | undefined>()
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
  while (walker.nextNode()) {
    const text = walker.currentNode as Text
    const e = text.parentElement!
    if (text.data.trim() === '' || e.closest('svg, script, style, .visually-hidden, .skip') || !isShown(e))
      continue
    unseen.set(text, e)
  }
  const range = document.createRange()
  const stepPx = Math.max(60, innerHeight * 0.4)
  for (let y = 0; y < root.scrollHeight + stepPx && unseen.size > 0; y += stepPx) {
    scrollTo(0, y)
    await new Promise(requestAnimationFrame)
    for (const [text, e] of unseen) {
      range.selectNodeContents(text)
      const { left, right, top, bottom } = range.getClientRects()[0] ?? new DOMRect()
      if (right - left < 1 || top < 0 || bottom > innerHeight) continue
      // Only what paints covers: the box of a large figure reaches further than what is seen of it.
      const under = document
        .elementsFromPoint((left + right) / 2, (top + bottom) / 2)
        .find((hit) => hit === e || hit.contains(e) || e.contains(hit) || paints(hit))
      if (under && (under === e || under.contains(e) || e.contains(under))) unseen.delete(text)
      else over.set(text, under)
    }
  }
  scrollTo(0, 0)
  for (const [text, e] of unseen)
    // A clock that turned over meanwhile has another text by now.
    if (text.isConnected)
      faults.push(
        `never seen: "${text.data.trim().slice(0, 40)}" in ${name(e)}, under ${over.get(text) ? name(over.get(text)!) : 'nothing'}`,
      )
  return faults
}

async function faultsOf(page: Page) {
  // What is worked out in the background has come once the page has stood still.
  await page.waitForFunction(() => !/(Fetching|Looking|Drawing)/.test(document.body.innerText))
  return page.evaluate(layoutFaults)
}

const SIZES = { desk: [1280, 800], phone: [390, 844], zoomed: [640, 400] } as const
/** Each stage of a run, by a piece of the demo that is there. */
const RUNS = [
  'Corbel',
  'Lamp-oil jug',
  'Chart tile B4',
  'Creek ripples',
  'Sea urchin, hand piece 7',
  'Ammonite',
  'Seal',
  'Tide-clock',
  'Shell for the glass urchin, first',
]

test('nothing is cut off, covered or out of reach, and the first view of a run is whole', async ({
  page,
  open,
  workshop,
}) => {
  const pours = await workshop.db.selectFrom('pour_summary').select(['pour_id', 'piece']).execute()
  const runs = RUNS.map((start) => `/pour/${pours.find((p) => p.piece.startsWith(start))!.pour_id}`)
  const first = `/casts/${pours.find((p) => p.piece.startsWith('Chart tile A2'))!.pour_id}`
  // Six casts of one pour, some of them out: who is meant is asked everywhere.
  const six = tilesPlan(6, 3)
  const [setting, drying] = [
    await sendPour(page, workshop, six, asPlanned(six), Date.now() - 90 * 60_000),
    await sendPour(
      page,
      workshop,
      six,
      [
        ...asPlanned(six),
        [60, { type: 'demoulded', outcome: 'whole', pieces: [1, 2, 3, 4, 5] }],
        [61, { type: 'demoulded', outcome: 'broken' }],
        [62, { type: 'defect', kind: 'voids', pieces: [2, 4] }],
      ],
      Date.now() - 90 * 60_000,
    ),
  ]
  const pieces = [`/pour/${setting.id}`, `/pour/${drying.id}`, `/casts/${drying.id}`]
  const places = ['/', '/plan', '/quick', '/moulds', '/casts', first, '/plasters', '/settings', '/wall']
  await open(page, '/safety')
  for (const path of [...places, ...runs, ...pieces]) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await go(page, path)
    await page.getByRole('heading', { level: 1 }).first().waitFor()
    for (const [size, [width, height]] of Object.entries(SIZES)) {
      await page.setViewportSize({ width, height })
      expect.soft(await faultsOf(page), `${path} ${size}`).toEqual([])
      if (!path.startsWith('/pour/') || size === 'zoomed') continue
      const whole = await page.evaluate(() =>
        [
          ...document.querySelectorAll(
            '.run h1, .run h1 + .how, .mass, .main, .cautions > *, .ready, .pool .knock, .pool .answers button, .pool form button',
          ),
        ].map((e) => [e.textContent!.slice(0, 40), e.getBoundingClientRect().bottom] as const),
      )
      expect(whole.length).toBeGreaterThan(1)
      for (const [text, bottom] of whole)
        expect.soft(bottom, `${path} ${size}: ${text}`).toBeLessThanOrEqual(height)
      if ((await page.locator('[data-pool]').count()) === 0) continue
      const dock = await page.locator('.dock').boundingBox()
      expect.soft(dock!.height / height, `${path} ${size} dock`).toBeLessThanOrEqual(0.35)
    }
  }
})

test('a sheet closes by its button, by a touch beside it, by Esc and by Back, and keeps what was typed', async ({
  browser,
  workshop,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
  const page = await context.newPage()
  await workshop.enter(context)
  await page.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
  const { pour_id: id } = await workshop.db
    .selectFrom('pour_summary')
    .select('pour_id')
    .where('piece', 'like', 'Sea urchin, hand piece 7%')
    .executeTakeFirstOrThrow()
  // Straight to the pour: Back has nowhere else to go.
  await page.goto(`${workshop.address}/pour/${id}`)
  const sheet = page.getByRole('dialog')
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toHaveText('Pour')
  const more = async (tool: string) => {
    await page.getByRole('button', { name: 'More', exact: true }).tap()
    await page.getByRole('menuitem', { name: tool }).tap()
    await expect(sheet).toBeVisible()
  }
  await more('Note')
  await page.getByRole('textbox', { name: 'Note' }).fill('half a th')
  await page.goBack()
  await expect(sheet).toBeHidden()
  await expect(page).toHaveURL(new RegExp(`/pour/${id}$`))
  await expect(heading).toHaveText('Pour')
  await more('Note')
  await expect(page.getByRole('textbox', { name: 'Note' })).toHaveValue('half a th')
  await sheet.getByRole('button', { name: 'Close' }).tap()
  await expect(sheet).toBeHidden()
  await more('Temperature')
  // Beside it.
  await page.touchscreen.tap(195, 820)
  await expect(sheet).toBeHidden()
  await more('Give up')
  await expect(sheet.getByRole('button', { name: 'Close this pour' })).toBeDisabled()
  await expect(sheet.getByRole('button', { name: 'Good' })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(sheet).toBeHidden()
  // Each left its place in the history again: one Back leaves the pour.
  await page.getByRole('button', { name: 'Put right' }).tap()
  await expect(sheet).toBeVisible()
  await sheet.getByRole('button', { name: 'Close' }).tap()
  await expect(sheet).toBeHidden()
  await expect
    .poll(() => page.evaluate(() => Boolean((history.state as { nineRipplesSheet?: true }).nineRipplesSheet)))
    .toBe(false)
  await context.close()
})

test('Enter in a field of the plan starts nothing; far too much water is asked about before plaster is weighed to it', async ({
  page,
  open,
}) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByLabel('What will it be?').fill('Pressed too soon')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Plan a pour')
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toHaveText('Get the mould ready')
  const pool = page.locator('[data-pool]')
  await pool.click()
  await expect(heading).toHaveText('Weigh the water')
  const status = page.locator('.run > [role=status]')
  await expect(status).toHaveText('The mould is ready. Next: Weigh the water.')
  await page.getByLabel('On the scale').fill('500 g')
  await expect(async () => {
    await pool.click()
    await expect(heading).toHaveText('Weigh the plaster', { timeout: 1000 })
  }).toPass()
  await expect(page.getByText(/500\sg of water is in, not \d+\sg\. What now\?/)).toBeVisible()
  // A key is no answer.
  await page.keyboard.press('k')
  await expect(heading).toHaveText('Weigh the plaster')
  await page.getByRole('button', { name: /^Sponge out \d+\sg of water/ }).click()
  await expect(page.locator('.mass')).toContainText('g')
  await expect(pool).toBeVisible()
})
