import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import { expect, go, part, test, type Workshop } from './fixtures'

test.use({ demo: true })

const axeSource = (createRequire(import.meta.url)('axe-core') as { source: string }).source

/** Faults that axe calls serious or critical, WCAG 2.2 A and AA, or only by some of its rules. */
async function seriousFaults(page: Page, rules?: string[]) {
  // Once a page: views of it come and go without it being loaded anew.
  if (!(await page.evaluate<boolean>("'axe' in window"))) await page.evaluate(axeSource)
  return page.evaluate(async (only) => {
    const { axe } = window as never as {
      axe: {
        run: (
          context: Document,
          options: object,
        ) => Promise<{
          violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[]
          passes: unknown[]
        }>
      }
    }
    const result = await axe.run(document, {
      runOnly: only ?? ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
      // Of what passes their number will do.
      resultTypes: ['violations'],
    })
    return {
      passes: result.passes.length,
      faults: result.violations
        .filter((v) => ['serious', 'critical'].includes(v.impact))
        .map((v) => `${v.id}: ${v.nodes.map((n) => `${n.html} ${n.failureSummary}`).join(' | ')}`),
    }
  }, rules)
}

const PIECES = {
  mould: 'Corbel',
  weigh: 'Lamp-oil jug',
  wet: 'Chart tile B4',
  set: 'Ammonite',
  demould: 'Seal',
  dry: 'Tide-clock',
  finished: 'Sea urchin, hand piece 6',
  failed: 'Shell for the glass urchin, first',
}

const piecesOf = ({ db }: Pick<Workshop, 'db'>) =>
  db.selectFrom('pour_summary').select(['pour_id as id', 'piece']).orderBy('created_at').execute()
/** Where each piece is, by how its name begins. */
async function runsOf(workshop: Pick<Workshop, 'db'>) {
  const rows = await piecesOf(workshop)
  return (start: string) => `/pour/${rows.find((r) => r.piece.startsWith(start))!.id}`
}

test('no view has a serious fault by axe, is wider than a phone, or asks for anything from outside', async ({
  page,
  open,
  workshop,
}) => {
  const rows = await piecesOf(workshop)
  const { id: mouldId } = await workshop.db
    .selectFrom('mould')
    .select('id')
    .where('name', 'like', 'Lamp-oil jug%')
    .executeTakeFirstOrThrow()
  const { id: recipeId } = await workshop.db.selectFrom('recipe').select('id').executeTakeFirstOrThrow()
  const run = await runsOf(workshop)
  const id = (start: string) => run(start).slice('/pour/'.length)
  const paths = [
    '/',
    '/plan',
    '/quick',
    '/casts',
    '/casts/figures',
    `/casts/compare?of=${rows[0]!.id},${rows[1]!.id}`,
    '/moulds',
    '/moulds/new',
    '/plasters',
    `/recipes/${recipeId}`,
    ...['', '/edit', '/card'].map((part) => `/moulds/${mouldId}${part}`),
    '/settings',
    '/people',
    '/pair',
    '/trust',
    '/wall',
    '/safety',
    ...Object.values(PIECES).map((p) => `/pour/${id(p)}`),
    ...['card', 'labels'].map((part) => `/pour/${id(PIECES.mould)}/${part}`),
    ...[PIECES.dry, PIECES.failed, PIECES.mould].map((p) => `/casts/${id(p)}`),
  ]
  await open(page, '/safety')
  for (const path of paths) {
    await go(page, path)
    await page.getByRole('heading', { level: 1 }).first().waitFor()
    // What is folded away counts as well.
    await page.evaluate(() => document.querySelectorAll('details').forEach((d) => (d.open = true)))
    const { faults, passes } = await seriousFaults(page)
    expect(passes, path).toBeGreaterThan(10)
    expect.soft(faults, path).toEqual([])
    await page.setViewportSize({ width: 390, height: 844 })
    // A chart takes its new size a frame after the window has its own.
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth), { message: path })
      .toBeLessThanOrEqual(390)
    await page.setViewportSize({ width: 1280, height: 800 })
  }
})

test('the bench is alive at first open, most urgent first, and each line has its sign in words', async ({
  page,
  open,
}) => {
  await open(page, '/')
  await expect(page.getByText('11 on the go')).toBeVisible()
  // The library comes with the next page (app/middleware/library.global.ts).
  await expect(page.locator('.p-component')).toHaveCount(0)
  await expect(page.getByRole('img', { name: 'Soak, stage 4 of 9' })).toBeVisible()
  const times = () => page.locator('.time').allInnerTexts()
  const before = await times()
  await expect.poll(times).not.toEqual(before)
  await page.getByRole('link', { name: /of 9 Seal’s jaw/ }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Take it out')
  // The clock goes on in the next view, too.
  const overdue = page.getByRole('timer').locator('.figure')
  const then = await overdue.innerText()
  await expect(overdue).not.toHaveText(then)
})

test('units chosen in one window show in another at once', async ({ context, page, open }) => {
  const other = await context.newPage()
  await open(other, '/plan')
  await expect(other.getByTestId('water')).toContainText(' g')
  await part(other, 'water')
  await open(page, '/settings')
  await page.getByRole('button', { name: 'US', exact: true }).click()
  await page.getByRole('button', { name: 'Keep these' }).click()
  await expect(page.getByText('Kept.')).toBeVisible()
  await expect(other.getByTestId('water')).toContainText('oz')
  await expect(other.getByRole('textbox', { name: 'Water' })).toHaveValue('61 °F')
})

test.describe('only looked at', () => {
  test.use({ shared: true })

  test('in the sun and in the dark it is as easy to read', async ({ page, open, workshop }) => {
    const runs = await runsOf(workshop)
    for (const look of ['glare', 'dim']) {
      await page.addInitScript((to) => localStorage.setItem('nine-ripples.look', to), look)
      await open(page, '/')
      await expect(page.locator('html')).toHaveAttribute('data-look', look)
      const stages = [PIECES.mould, PIECES.weigh, PIECES.wet, PIECES.set, PIECES.demould, PIECES.dry]
      for (const path of ['/', '/plan', '/settings', '/safety', ...stages.map(runs)]) {
        if (path !== '/') await go(page, path)
        await page.getByRole('heading', { level: 1 }).first().waitFor()
        if (path.startsWith('/pour/')) await page.getByRole('button', { name: 'Note' }).waitFor()
        // Of what is looked for elsewhere, only colours differ.
        expect.soft((await seriousFaults(page, ['color-contrast'])).faults, `${look} ${path}`).toEqual([])
      }
    }
  })

  test('what opens over a page has no serious fault either', async ({ page, open }) => {
    const sheets: [path: string, button: string | RegExp][] = [
      ['/plasters', 'A plaster, from its bag'],
      ['/plasters', 'Change Sack of spring'],
      ['/plasters', 'Spoon test of Sack of spring'],
    ]
    for (const [path, button] of sheets) {
      await open(page, path)
      await page.getByRole('button', { name: button }).first().click()
      await expect(page.getByRole('dialog')).toBeVisible()
      expect.soft((await seriousFaults(page)).faults, String(button)).toEqual([])
    }
    await open(page, '/')
    await page
      .getByRole('link', { name: /Sea urchin, hand piece 7/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Put right' }).click()
    expect((await seriousFaults(page)).faults).toEqual([])
  })

  test('a first open begins with the caution', async ({ page, workshop }) => {
    await page.goto(`${workshop.address}/casts`)
    await expect(page.getByRole('heading', { level: 1 })).toContainText('Plaster burns')
    await page.getByRole('button', { name: 'I have read this' }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Casts')
  })

  test('the log finds, filters and pages', async ({ page, open }) => {
    await open(page, '/casts')
    await expect(page.getByText('21 found')).toBeVisible()
    await page.getByRole('button', { name: 'Older' }).click()
    await expect(page.locator('tbody tr')).toHaveCount(10)
    await page.getByLabel('Search').fill('urchin')
    await expect(page.getByText('4 found')).toBeVisible()
    await page.getByRole('combobox', { name: 'Show' }).click()
    await page.getByRole('option', { name: 'Failed' }).click()
    await expect(page.getByText('1 found')).toBeVisible()
    await page.getByLabel('Search').fill('no such thing')
    await expect(page.getByText('Nothing like that in the log.')).toBeVisible()
  })

  test('a pour and a page that are not there say so', async ({ page, open }) => {
    await open(page, '/pour/00000000-0000-4000-8000-000000000000')
    await expect(page.getByRole('heading', { level: 1 })).toContainText('not here')
    await open(page, '/nowhere')
    await expect(page.getByRole('heading', { level: 1 })).toContainText('no such page')
  })
})
