import type { Page } from '@playwright/test'
import { rectangleAt, seen } from '../support/camera'
import { printPicture } from '../support/printPicture'
import { CAMERA, fetchAll, head, opened, phone, tap } from './fieldPhone'
import { expect, go, knock, own, pool, pourIdOf, storedEvents } from './fixtures'

own.use({ serviceWorkers: 'allow' })

/** A print of this size, an oval, with a card of the bank's size beside it, as the telephone sees them. */
async function pictured(lengthMm: number, widthMm: number) {
  const card = rectangleAt({ xMm: 0, yMm: -75 }, [85.6, 53.98], 4)
  const outline = Array.from({ length: 10 }, (_, i) => {
    const a = (2 * Math.PI * i) / 10
    return { xMm: (lengthMm / 2) * Math.cos(a), yMm: 25 + (widthMm / 2) * Math.sin(a) }
  })
  return { card, outline, picture: await printPicture(CAMERA, card, outline) }
}

interface Way {
  name: string
  ground: 'Mud' | 'Silt' | 'Sand'
  lengthMm: number
  widthMm: number
  depthsMm: number[]
  indoors?: boolean
  /** What its steps say out there. */
  pourSays: RegExp
  outSays: RegExp
  /** What the plan says of it. */
  onPlan?: (page: Page) => Promise<void>
}

const WAYS: Way[] = [
  {
    name: 'Otter, creek mouth',
    ground: 'Mud',
    lengthMm: 70,
    widthMm: 60,
    depthsMm: [14],
    pourSays: /A leak is plugged with mud/,
    outSays: /Mud holds by suction/,
  },
  {
    name: 'Seal, lower flat',
    ground: 'Silt',
    lengthMm: 190,
    widthMm: 120,
    depthsMm: [20, 24, 12],
    pourSays: /silt stirs up easily/,
    outSays: /lift it with its ground/,
    onPlan: async (page) => {
      await page.locator('[data-part="deadline"]').click()
      const leaveAt = new Date(Date.now() + 75 * 60_000)
      await page
        .getByLabel('One must have left by')
        .fill(
          `${String(leaveAt.getHours()).padStart(2, '0')}:${String(leaveAt.getMinutes()).padStart(2, '0')}`,
        )
      await expect(page.getByTestId('deadline')).toContainText('It does not fit')
      await page.getByRole('button', { name: 'Lift it with its ground' }).click()
      await expect(page.getByTestId('deadline')).toContainText('It fits')
      await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
    },
  },
  {
    name: 'Wader, dry edge',
    ground: 'Sand',
    lengthMm: 90,
    widthMm: 70,
    depthsMm: [9],
    pourSays: /over a spoon held low/,
    outSays: /Sand falls off by itself/,
  },
  {
    name: 'Limpet stamp',
    ground: 'Sand',
    lengthMm: 60,
    widthMm: 45,
    depthsMm: [8],
    indoors: true,
    pourSays: /over a spoon held low/,
    outSays: /dug free all round/,
  },
]

async function found(page: Page, way: Way) {
  await go(page, '/field/prints/new')
  if (way.indoors) await page.getByLabel('It is practice, in a tray indoors').check()
  await page.getByRole('textbox', { name: 'It is called' }).fill(way.name)
  await page.getByRole('button', { name: way.ground, exact: true }).click()
  await page.getByRole('button', { name: 'Photograph and measure it' }).click()
  await expect(head(page)).toHaveText(way.name)
}

async function measured(page: Page, way: Way) {
  const { card, outline, picture } = await pictured(way.lengthMm, way.widthMm)
  for (let i = 0; i < 2; i++)
    await page
      .getByLabel('Photograph of the print')
      .and(page.locator('input'))
      .setInputFiles({ name: `print ${i}.png`, mimeType: 'image/png', buffer: picture })
  await expect(page.getByRole('list', { name: 'Which photograph' }).getByRole('button')).toHaveCount(2)
  await page.getByRole('combobox', { name: 'In the picture lies' }).click()
  await page.getByRole('option', { name: 'A bank card' }).click()
  for (const corner of card) await tap(page, seen(CAMERA, corner))
  await page.getByRole('button', { name: '2 Measure' }).click()
  for (const end of [outline[0]!, outline[5]!]) await tap(page, seen(CAMERA, end))
  const told = await page.getByRole('button', { name: /^Length [\d.]+ mm/ }).innerText()
  const [, value, plusMinus] = /([\d.]+) mm ± ([\d.]+)/.exec(told)!.map(Number)
  expect(Math.abs(value! - way.lengthMm)).toBeLessThan(Math.max(2, way.lengthMm / 100))
  expect(Math.abs(value! - way.lengthMm)).toBeLessThan(2 * plusMinus!)
  await page.getByRole('button', { name: '3 Outline' }).click()
  for (const at of outline) await tap(page, seen(CAMERA, at))
  await expect(page.getByText(/Within the outline/)).toBeVisible()
  for (const depth of way.depthsMm) {
    await page.getByRole('textbox', { name: 'Depth, by a stick' }).fill(String(depth))
    await page.getByRole('button', { name: 'This one too' }).click()
  }
}

/** One step after the other until it sets, saying what the ground asks for; then out, then done. @returns how many were recorded. */
async function pouredAndOut(page: Page, way: Way): Promise<number> {
  let events = 0
  for (;;) {
    const title = await head(page).innerText()
    if (title === 'Leave it alone') break
    if (/^Pour/.test(title)) await expect(page.locator('.how').first()).toHaveText(way.pourSays)
    await knock(page)
    await expect(head(page)).not.toHaveText(title)
    events += 1
  }
  for (const seenNow of [/gloss/i, /thumbnail/i]) {
    const cue = page
      .getByRole('group', { name: 'What else was seen or felt' })
      .getByRole('button', { name: seenNow })
    if ((await cue.count()) === 0) continue
    await cue.first().click()
    events += 1
  }
  await page.getByText('Clean up', { exact: true }).click()
  for (const tick of await page.getByRole('group', { name: 'Clean up' }).getByRole('checkbox').all()) {
    await tick.click()
    events += 1
  }
  await page.getByRole('button', { name: 'It is already out of the mould' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Whole', exact: true }).click()
  events += 1
  await page.getByRole('button', { name: 'Cold and clammy' }).click()
  await page.getByRole('button', { name: 'It is finished' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Good' }).click()
  await page.getByRole('button', { name: 'Close this pour' }).click()
  await expect(pool(page)).toBeHidden()
  return events + 2
}

own(
  'four ways from packing to label, by one telephone out of reach: mud, silt lifted with its ground, sand, a tray indoors',
  async ({ browser, workshop }) => {
    const page = await phone(browser, workshop, 'Ana')
    await own.step('packed for at home', async () => {
      await go(page, '/field/pack')
      await expect(page.getByText(/Ring|Rings/).first()).toBeVisible()
      await page.getByRole('textbox', { name: 'Water is found by the cap of' }).fill('blue bottle')
      await page.getByRole('textbox', { name: 'One cap holds' }).fill('25 ml')
      await page.getByLabel(/A scale rule/).check()
      await go(page, '/field/labels')
      await expect(page.getByText(/caps of\s+blue bottle/).first()).toBeVisible()
      await go(page, '/field')
      await fetchAll(page)
    })
    await page.context().setOffline(true)

    const pours: { id: string; events: number }[] = []
    const { picture: photo } = await pictured(70, 60)
    for (const way of WAYS)
      await own.step(way.name, async () => {
        await found(page, way)
        await measured(page, way)
        await page.getByRole('button', { name: 'Plan the pour' }).click()
        await expect(page.getByText(/kneaded in a bag/)).toBeVisible()
        await way.onPlan?.(page)
        await page.getByRole('button', { name: 'Take it to the bench' }).click()
        await expect(pool(page)).toBeVisible()
        const id = pourIdOf(page)
        // With the photograph of what came out.
        pours.push({ id, events: (await pouredAndOut(page, way)) + 1 })
        await go(page, `/casts/${id}`)
        await page
          .getByLabel('Photograph', { exact: true })
          .setInputFiles({ name: 'cast.png', mimeType: 'image/png', buffer: photo })
        await expect(page.getByRole('button', { name: /^Photograph of / })).toBeVisible()
        await go(page, `/casts/${id}/label`)
        await expect(page.getByText(way.name).first()).toBeVisible()
        await expect(page.getByText(new RegExp(way.ground.toLowerCase())).first()).toBeVisible()
      })

    await opened(page, `${workshop.address}/field`)
    for (const { name } of WAYS) await expect(page.getByText(name)).toBeVisible()
    await workshop.restart('SIGTERM')
    await page.context().setOffline(false)
    await expect(page.getByText(/Not connected/)).toBeHidden()
    for (const { id, events } of pours)
      await expect.poll(async () => (await storedEvents(workshop, id)).length).toBe(events)
    await expect
      .poll(async () => (await workshop.db.selectFrom('photo').select('id').execute()).length)
      .toBe(3 * WAYS.length)
    expect(pours.reduce((sum, p) => sum + p.events, 0)).toBeGreaterThan(60)
    await page.context().close()
  },
)
