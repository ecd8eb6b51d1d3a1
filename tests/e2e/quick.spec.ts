import type { Locator, Page } from '@playwright/test'
import { expect, knock, pool, storedEvents, test } from './fixtures'

test.describe('on a phone, in a workshop with nothing in it', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  /** Counts what a finger does: a touch of the screen, a field being one. */
  function finger(page: Page) {
    let touches = 0
    const touch = async (what: Locator) => {
      touches += 1
      await what.tap()
    }
    return {
      touch,
      tile: (name: RegExp) => touch(page.getByRole('radio', { name })),
      type: async (name: string | RegExp, text: string) => {
        const field = page.getByRole('textbox', { name })
        await touch(field)
        await field.fill(text)
      },
      button: (name: string | RegExp) => touch(page.getByRole('button', { name })),
      count: () => touches,
    }
  }
  const toTheBench = 'Take it to the bench'

  test('three questions come to a bucket that works, by water and islands, by cups, by weight; the first become cards', async ({
    page,
    open,
    workshop,
  }) => {
    const pours = () => workshop.db.selectFrom('pour').selectAll().orderBy('created_at', 'desc').execute()

    await test.step('two thirds of a mould in water, and islands', async () => {
      await open(page, '/')
      const by = finger(page)
      await by.touch(page.getByRole('link', { name: 'Quick: three questions' }))
      await expect(page.getByText('when the three are answered')).toBeVisible()
      await by.tile(/I can pour water into it/)
      await by.type('Water that went in', '3 l')
      await by.tile(/^Plaster of Paris/)
      await expect(page.getByText('Still to say: how you measure.')).toBeVisible()
      await by.tile(/By eye/)
      await by.tile(/Islands/)
      await expect(
        page.getByText(/^1 × First mould in plaster of Paris, 76 to 100, by eye to islands/),
      ).toBeVisible()
      // Two thirds of it and a tenth to spare.
      await expect(page.getByText(/Fill the mould to 73 % with water/)).toBeVisible()
      await expect(page.getByRole('list', { name: /The way to the pour/ })).toContainText('Sift to islands')
      await by.button(toTheBench)
      await expect(pool(page)).toBeVisible()
      expect(by.count()).toBeLessThanOrEqual(12)
      const [mould] = await workshop.db.selectFrom('mould').selectAll().execute()
      const [plaster] = await workshop.db.selectFrom('plaster').selectAll().execute()
      expect(mould).toMatchObject({ name: 'First mould' })
      expect(plaster).toMatchObject({ name: 'Plaster of Paris', class_id: 'pop' })
      expect((await pours())[0]!.plan).toMatchObject({
        ratioMethod: 'by_eye',
        siftStage: 'islands',
        mould: { members: [{ mouldId: mould!.id, cavityMl: expect.closeTo(3000, -2) }] },
        plaster: { plasterId: plaster!.id },
      })
    })

    await test.step('2 : 1 by cups of one’s own', async () => {
      await open(page, '/quick')
      const by = finger(page)
      await by.tile(/A bucket of about/)
      await by.type('It holds', '2 l')
      await by.tile(/^Plaster of Paris/)
      await by.type(/What its bag says/, '2 : 1')
      await by.touch(page.getByRole('button', { name: /volume|scoop|cup/i }).first())
      await by.tile(/By cups/)
      await by.type('Your cup holds', '300 ml')
      await expect(page.getByTestId('scoops')).toContainText(/of 300 ml each/)
      await by.button(toTheBench)
      await expect(pool(page)).toBeVisible()
      expect(by.count()).toBeLessThanOrEqual(12)
      expect((await pours())[0]!.plan).toMatchObject({
        ratioMethod: 'by_volume',
        scoop: { measureMl: 300 },
        sparePct: 0,
      })
    })

    await test.step('100 ml to 200 g; the cup is known by now, and what cannot be read stays typed', async () => {
      await open(page, '/quick')
      const by = finger(page)
      await by.tile(/A mould off the shelf/)
      await by.tile(/^Plaster of Paris/)
      await by.tile(/By cups/)
      await expect(page.getByRole('textbox', { name: 'Your cup holds' })).toHaveValue('300 ml')
      await by.tile(/On a scale/)
      await expect(page.getByRole('button', { name: toTheBench })).toBeEnabled()
      await by.type(/What its bag says/, 'a good deal')
      await expect(page.getByText('Still to say: which powder.')).toBeVisible()
      await page.reload()
      await expect(page.getByRole('textbox', { name: /What its bag says/ })).toHaveValue('a good deal')
      await by.type(/What its bag says/, '100 ml to 200 g')
      await expect(page.getByText(/^1 × First mould in plaster of Paris, 50 to 100, by weight/)).toBeVisible()
      await by.button(toTheBench)
      await expect(pool(page)).toBeVisible()
      expect(by.count()).toBeLessThanOrEqual(12)
      expect(await workshop.db.selectFrom('mould').selectAll().execute()).toHaveLength(1)
      expect(await workshop.db.selectFrom('plaster').selectAll().execute()).toHaveLength(1)
    })

    await test.step('water in any measure; whose cup is asked once, with what it holds, and kept', async () => {
      await open(page, '/quick')
      const by = finger(page)
      await by.tile(/I can pour water into it/)
      await by.type('Water that went in', '1 kg')
      await expect(page.getByRole('textbox', { name: 'Water that went in' })).toHaveAttribute(
        'aria-invalid',
        'false',
      )
      await by.type('Water that went in', '4 cups')
      await by.touch(page.getByRole('button', { name: /US.*: 946 ml/ }))
      await expect(page.getByText('Read as cup, US, 236.6 ml')).toBeVisible()
      await expect
        .poll(
          async () =>
            (await workshop.db.selectFrom('settings').select('kitchen').executeTakeFirstOrThrow()).kitchen,
        )
        .toBe('us')
      await by.type('Water that went in', '2 cups')
      await expect(page.getByText('Read as cup, US, 236.6 ml')).toBeVisible()
      await expect(page.getByText('Which is it?')).toBeHidden()
      // At the scale, too: one bowl of water as the jug says it.
      const [pour] = await pours()
      await open(page, `/pour/${pour!.id}`)
      await knock(page)
      await page.getByRole('textbox', { name: 'On the scale' }).fill('2 cups')
      await knock(page)
      await expect
        .poll(async () => (await storedEvents(workshop, pour!.id)).at(-1)?.body)
        .toMatchObject({ type: 'weighed', what: 'water', massG: expect.closeTo(472.4, 0) })
    })
  })
})

test('on a desk by keyboard alone: a print in the ground, seen whole on the worksheet after', async ({
  page,
  open,
}) => {
  await open(page, '/quick')
  await page
    .getByRole('radio', { name: /A mould off the shelf|I can pour water/ })
    .first()
    .focus()
  const answer = async (name: RegExp) => {
    const tile = page.getByRole('radio', { name })
    for (let i = 0; i < 10 && !(await tile.isChecked()); i++) await page.keyboard.press('ArrowDown')
    await expect(tile).toBeChecked()
  }
  await answer(/A print in the ground/)
  await page.getByRole('radio', { name: /^Plaster of Paris/ }).focus()
  await page.keyboard.press('Space')
  await page.getByRole('radio', { name: /On a scale/ }).focus()
  await page.keyboard.press('Space')
  await page.getByRole('button', { name: 'See and change all of it' }).focus()
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/plan$/)
  // The way has set its own material, release and kind: nothing of silicone.
  await expect(page.locator('[data-part=mould]')).toHaveText(/A mould of/)
  await page.locator('[data-part=mould]').click()
  await expect(page.getByText('Sand or soil').first()).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take it to the bench' })).toBeEnabled()
})
