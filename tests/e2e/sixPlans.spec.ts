import type { Locator, Page } from '@playwright/test'
import type { PourPlan } from '../../core/pour'
import { expect, go, pool, pourIdOf, test, type Workshop } from './fixtures'
import { SIX_PLANS, type Hand } from './sixPlans'

test.use({ demo: true })

/** All six, one after another, each from the bench to its pour. @returns how many touches each took. */
async function planSix(workshop: Workshop, page: Page, touchBy: (what: Locator) => Promise<void>) {
  const touches: Record<string, number> = {}
  for (const [name, { answer, cavityMl, consistency, ratioMethod }] of Object.entries(SIX_PLANS))
    await test.step(name, async () => {
      if (new URL(page.url()).pathname !== '/') await go(page, '/')
      let count = 0
      const touch = async (what: Locator) => {
        count += 1
        await touchBy(what)
      }
      const type: Hand['type'] = async (field, text) => {
        await touch(page.getByRole('textbox', { name: field }))
        await page.getByRole('textbox', { name: field }).fill(text)
      }
      await touch(page.getByRole('link', { name: 'Quick', exact: true }))
      await answer({ page, touch, type })
      await touch(page.getByRole('button', { name: 'Take it to the bench' }))
      await expect(pool(page)).toBeVisible()
      const { plan } = await workshop.db
        .selectFrom('pour')
        .select('plan')
        .where('id', '=', pourIdOf(page))
        .executeTakeFirstOrThrow()
      const kept = plan as PourPlan
      expect(kept.ratioMethod).toBe(ratioMethod)
      if (cavityMl !== undefined) expect(kept.mould.cavityMl).toBeCloseTo(cavityMl, -1)
      if (consistency !== undefined) expect(kept.consistency).toBeCloseTo(consistency, 0)
      touches[name] = count
    })
  return touches
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('six plans by touch, each from the bench to its pour in twelve touches', async ({
    page,
    open,
    workshop,
  }) => {
    await open(page, '/')
    const touches = await planSix(workshop, page, (what) => what.tap())
    for (const [name, count] of Object.entries(touches)) expect(count, name).toBeLessThanOrEqual(12)
  })
})

test('six plans on a desk by keyboard alone', async ({ page, open, workshop }) => {
  await open(page, '/')
  await planSix(workshop, page, async (what) => {
    // A button and a link open by Enter; an answer is taken by the space bar, and a field is there once it has the focus.
    const [tag, type] = await what.evaluate((e) => [e.tagName, e.getAttribute('type')])
    if (type === 'radio') await what.press('Space')
    else if (tag === 'INPUT') await what.focus()
    else await what.press('Enter')
  })
})
