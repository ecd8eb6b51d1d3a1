import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { testPlan } from '../unit/plans'
import { rectangleAt, seen } from '../support/camera'
import { newerBuild } from '../support/newerBuild'
import { printPicture } from '../support/printPicture'
import { CAMERA, fetchAll, head, opened, phone, tap } from './fieldPhone'
import { expect, go, keepUnsent, knock, own, pool, pourIdOf, storedEvents } from './fixtures'

own.use({ serviceWorkers: 'allow' })

own(
  'a day without a network: two phones, a print measured and poured, a pour of both; all of it comes home once',
  async ({ browser, workshop }, testInfo) => {
    const shared = randomUUID()
    const made = await fetch(`${workshop.address}/api/pours`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: shared, plan: testPlan() }),
    })
    expect(made.status).toBe(200)
    const [ana, ben] = (await Promise.all(
      ['Ana', 'Ben'].map(async (who) => {
        const page = await phone(browser, workshop, who)
        await fetchAll(page)
        await expect(page.locator('li', { hasText: 'Pours on the go' })).toContainText('1 of 1')
        return page
      }),
    )) as [Page, Page]
    await Promise.all([ana, ben].map((page) => page.context().setOffline(true)))

    await own.step('the bench opens where there is nothing but the phone', async () => {
      await opened(ana, `${workshop.address}/`)
      await expect(ana.getByText(/Not connected/)).toBeVisible()
      await expect(ana.getByText(/What stands here is from/)).toBeVisible()
      await opened(ben, `${workshop.address}/pour/${shared}`)
      await expect(head(ben)).toHaveText('Get the mould ready')
    })

    const marks = rectangleAt({ xMm: 0, yMm: -75 }, [85.6, 53.98], 4)
    const print = Array.from({ length: 14 }, (_, i) => {
      const a = (2 * Math.PI * i) / 14
      return { xMm: 55 * Math.cos(a), yMm: 25 + 38 * Math.sin(a) }
    })
    const picture = await printPicture(CAMERA, marks, print)
    await own.step(
      'a print is found, photographed, measured on the photograph, and planned for',
      async () => {
        await go(ana, '/field/prints/new')
        await ana.getByRole('textbox', { name: 'It is called' }).fill('Heron by the weir')
        await ana.getByRole('button', { name: 'Mud' }).click()
        await ana.getByRole('button', { name: 'Photograph and measure it' }).click()
        await expect(head(ana)).toHaveText('Heron by the weir')
        for (let i = 0; i < 8; i++)
          await ana
            .getByLabel('Photograph of the print')
            .and(ana.locator('input'))
            .setInputFiles({ name: `print ${i}.png`, mimeType: 'image/png', buffer: picture })
        await expect(ana.getByRole('list', { name: 'Which photograph' }).getByRole('button')).toHaveCount(8)
        await ana.getByRole('combobox', { name: 'In the picture lies' }).click()
        await ana.getByRole('option', { name: 'A bank card' }).click()
        for (const corner of marks) await tap(ana, seen(CAMERA, corner))
        await ana.getByRole('button', { name: '2 Measure' }).click()
        for (const end of [print[0]!, print[7]!]) await tap(ana, seen(CAMERA, end))
        // 110 mm from toe to heel.
        const told = await ana.getByRole('button', { name: /^Length [\d.]+ mm/ }).innerText()
        expect(Number(/([\d.]+) mm ±/.exec(told)![1])).toBeGreaterThan(108)
        expect(Number(/([\d.]+) mm ±/.exec(told)![1])).toBeLessThan(112)
        await ana.getByRole('button', { name: '3 Outline' }).click()
        for (const at of print) await tap(ana, seen(CAMERA, at))
        await expect(ana.getByText(/Within the outline/)).toBeVisible()
        // π · 55 · 38 mm².
        const area = await ana.getByText(/Within the outline/).innerText()
        expect(Number(/outline ([\d.]+) cm/.exec(area)![1]) / (Math.PI * 5.5 * 3.8)).toBeCloseTo(1, 1)
        for (const depth of ['12', '18', '9']) {
          await ana.getByRole('textbox', { name: 'Depth, by a stick' }).fill(depth)
          await ana.getByRole('button', { name: 'This one too' }).click()
        }
        await expect(ana.getByText('Three places and more speak for its floor.')).toBeVisible()
        await ana.getByRole('button', { name: 'Plan the pour' }).click()
        await ana.getByRole('button', { name: 'Take it to the bench' }).click()
        await expect(pool(ana)).toBeVisible()
      },
    )
    const hers = pourIdOf(ana)

    await own.step('both pour what is their own, and both record what is shared', async () => {
      const run = async (page: Page, knocks: number) => {
        for (let i = 0; i < knocks; i++) {
          const was = await head(page).innerText()
          await knock(page)
          await expect(head(page)).not.toHaveText(was)
        }
      }
      await Promise.all([
        run(ana, 3).then(async () => {
          await go(ana, `/pour/${shared}`)
          await run(ana, 2)
        }),
        run(ben, 3).then(async () => {
          await go(ben, '/plan')
          await ben.getByRole('button', { name: 'Take it to the bench' }).click()
          await expect(pool(ben)).toBeVisible()
          await run(ben, 3)
        }),
      ])
    })
    const his = pourIdOf(ben)

    // Each has written more down meanwhile than anybody presses here: sixty events in all.
    const notes = (who: string, pourId: string, count: number) =>
      Array.from({ length: count }, (_, i) => ({
        pourId,
        event: {
          id: randomUUID(),
          occurredAtMs: Date.now() - (count - i) * 1000,
          who,
          planRevision: 1,
          body: { type: 'note', text: `${who} ${i}` },
        },
      }))
    await keepUnsent(ana, [...notes('Ana', hers, 20), ...notes('Ana', shared, 5)])
    await keepUnsent(ben, [...notes('Ben', his, 20), ...notes('Ben', shared, 4)])
    await opened(ben, `${workshop.address}/field`)
    // Closed and opened again out there, with the server being renewed at home.
    await opened(ana, `${workshop.address}/field`)
    await expect(ana.getByText('Heron by the weir')).toBeVisible()
    const newer = randomUUID()
    await workshop.restart('SIGTERM', newerBuild(testInfo.outputPath('newer'), newer))

    await own.step('they come home one after the other', async () => {
      await ben.context().setOffline(false)
      await expect(ben.getByText(/Not connected/)).toBeHidden()
      await expect.poll(async () => (await storedEvents(workshop, his)).length).toBe(23)
      await ana.context().setOffline(false)
      await expect(ana.getByText(/Not connected/)).toBeHidden()
      await expect.poll(async () => (await storedEvents(workshop, hers)).length).toBe(23)
      await expect.poll(async () => (await storedEvents(workshop, shared)).length).toBe(14)
      const mould = await workshop.db.selectFrom('mould').selectAll().executeTakeFirstOrThrow()
      expect(mould.name).toBe('Heron by the weir')
      expect(mould.find).toMatchObject({ ground: 'mud', depthsMm: [12, 18, 9] })
      await expect
        .poll(async () => (await workshop.db.selectFrom('photo').select('id').execute()).length)
        .toBe(8)
      const pours = await workshop.db.selectFrom('pour').select(['id', 'plan']).execute()
      expect(pours.map((p) => p.id).sort()).toEqual([shared, hers, his].sort())
      expect(pours.find((p) => p.id === hers)!.plan).toMatchObject({
        mould: { members: [{ mouldId: mould.id }] },
      })
      for (const page of [ana, ben]) await expect(page.getByText(/not taken/)).toBeHidden()
    })

    await own.step('and show the same, whoever came first', async () => {
      for (const page of [ana, ben]) await opened(page, `${workshop.address}/casts/${shared}`)
      const said = (page: Page) =>
        page.getByRole('region', { name: 'What happened', exact: true }).innerText()
      await expect.poll(() => said(ben)).toBe(await said(ana))
      // Both made its mould ready, apart: said, not chosen in silence.
      for (const page of [ana, ben])
        await expect(page.getByRole('region', { name: 'Recorded by two' })).toContainText(
          /Not Ana.*Not Ben|Not Ben.*Not Ana/s,
        )
    })
    await own.step(
      'the newer application waits for a pour under way, and then takes nothing away',
      async () => {
        const take = ben.getByRole('button', { name: 'Take it now' })
        const buildOf = (page: Page) =>
          page.evaluate(
            () => (window.__NUXT__ as { config: { app: { buildId: string } } }).config.app.buildId,
          )
        await opened(ben, `${workshop.address}/pour/${his}`)
        await take.click()
        await expect(ben.getByText(/A pour is under way in a window here/)).toBeVisible()
        expect(await buildOf(ben)).not.toBe(newer)
        await go(ben, `/casts/${shared}`)
        await take.click()
        await ben.waitForFunction(
          (id) => (window.__NUXT__ as { config: { app: { buildId: string } } })?.config.app.buildId === id,
          newer,
        )
        await expect(ben.getByRole('region', { name: 'Recorded by two' })).toBeVisible()
        await expect(take).toBeHidden()
      },
    )
    await Promise.all([ana, ben].map((page) => page.context().close()))
  },
)
