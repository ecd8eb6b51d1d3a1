import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { seen, rectangleAt } from '../support/camera'
import { printPicture } from '../support/printPicture'
import { CAMERA, drag, head, tap } from './fieldPhone'
import { expect, part, test, type Workshop } from './fixtures'

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

async function find(page: Page, name: string, ground = 'Mud') {
  await page.getByRole('textbox', { name: 'It is called' }).fill(name)
  await page.getByRole('button', { name: ground, exact: true }).click()
  await page.getByRole('button', { name: 'Photograph and measure it' }).click()
  await expect(head(page)).toHaveText(name)
}
const photographs = (page: Page) => page.getByLabel('Photograph of the print').and(page.locator('input'))
const kept = async (workshop: Workshop) =>
  (await workshop.db.selectFrom('photo').select(['width_px', 'height_px']).orderBy('width_px').execute()).map(
    (p) => [p.width_px, p.height_px],
  )
const findOf = async ({ db }: Workshop, name: string) =>
  (await db.selectFrom('mould').select('find').where('name', '=', name).executeTakeFirstOrThrow()).find

test('where the device is, its camera, what a camera cannot be and what is no photograph', async ({
  page,
  open,
  workshop,
}) => {
  await page.context().grantPermissions(['geolocation', 'camera'])
  await page.context().setGeolocation({ latitude: 54.123_456, longitude: -3.654_321, accuracy: 6 })
  await open(page, '/field/prints/new')
  await find(page, 'Kit')
  await test.step('kept no finer than is wished', async () => {
    await page.getByRole('button', { name: 'To 1 km' }).click()
    await page.getByRole('button', { name: 'Where this device is' }).click()
    await expect(page.getByText(/to 1 km$/)).toBeVisible()
    await expect.poll(async () => (await findOf(workshop, 'Kit'))?.position).toMatchObject({ withinM: 1000 })
    const { latDeg, lonDeg } = (await findOf(workshop, 'Kit'))!.position!
    expect(Math.hypot((latDeg - 54.123_456) * 111.2, (lonDeg + 3.654_321) * 65.2)).toBeLessThan(0.75)
    expect([latDeg, lonDeg].map((d) => String(d).split('.')[1]!.length <= 3)).toEqual([true, true])
    await page.getByRole('button', { name: 'Not at all' }).click()
    await expect.poll(async () => (await findOf(workshop, 'Kit'))?.position).toBeNull()
  })
  await test.step('the camera looks, says what it sees, and takes', async () => {
    await page.getByRole('button', { name: 'Photograph it' }).click()
    await expect(page.getByLabel('What the camera sees')).toBeVisible()
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByRole('group', { name: /Photograph of the print/ })).toBeVisible()
    await expect.poll(() => kept(workshop)).toHaveLength(1)
  })
  await test.step('refused, the device’s own is offered', async () => {
    await page.evaluate(() => {
      navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'))
    })
    await page.getByRole('button', { name: 'Photograph it' }).click()
    await expect(page.getByText(/The camera is not to be had here/)).toBeVisible()
  })
  await test.step('48 megapixels lying on their side are turned up and made small', async () => {
    const large = await sharp({ create: { width: 8000, height: 6000, channels: 3, background: '#9a8768' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    await photographs(page).setInputFiles({ name: 'large.jpg', mimeType: 'image/jpeg', buffer: large })
    await expect.poll(() => kept(workshop)).toContainEqual([1800, 2400])
  })
  await test.step('a broken header is said, and costs nothing of what is there', async () => {
    const whole = await sharp({ create: { width: 80, height: 60, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer()
    const broken = Buffer.concat([Buffer.from('not a header'), whole.subarray(12)])
    await photographs(page).setInputFiles({ name: 'broken.jpg', mimeType: 'image/jpeg', buffer: broken })
    await expect(page.getByText(/^broken\.jpg: /)).toBeVisible()
    expect(await kept(workshop)).toHaveLength(2)
  })
})

test('corners in a wrong order are put right, three in a line are refused, and a rule in other units is doubted', async ({
  page,
  open,
}) => {
  await open(page, '/field/prints/new')
  await find(page, 'Corners')
  const card = rectangleAt({ xMm: 0, yMm: -60 }, [85.6, 53.98], 4)
  const ends = [
    { xMm: -45, yMm: 30 },
    { xMm: 45, yMm: 30 },
  ]
  const picture = await printPicture(CAMERA, card, [...ends, { xMm: 0, yMm: 60 }])
  // It is marked on while it is still on its way: what arrives late takes nothing away.
  let arrive!: () => void
  const held = new Promise<void>((resolve) => (arrive = resolve))
  await page.route(/\/api\/photos\?/, async (route) => {
    await held
    await route.continue()
  })
  await photographs(page).setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: picture })
  await page.getByRole('combobox', { name: 'In the picture lies' }).click()
  await page.getByRole('option', { name: 'A bank card' }).click()
  const at = card.map((s) => seen(CAMERA, s))
  const middle = { x: (at[0]!.x + at[1]!.x) / 2, y: (at[0]!.y + at[1]!.y) / 2 }
  for (const corner of [at[0]!, middle, at[1]!, at[2]!]) await tap(page, corner)
  await expect(page.getByText(/Three of these corners lie in a line/)).toBeVisible()
  // The one that lay between them is drawn to the corner that was left out: now they cross.
  await drag(page, middle, at[3]!)
  await expect(page.getByText(/lie in a line/)).toBeHidden()
  await page.getByRole('button', { name: '2 Measure' }).click()
  for (const end of ends) await tap(page, seen(CAMERA, end))
  const told = page.getByRole('button', { name: /^Length [\d.]+ mm/ })
  expect(Math.abs(Number(/([\d.]+) mm/.exec(await told.innerText())![1]) - 90)).toBeLessThan(2)
  arrive()
  await page.waitForResponse(/\/api\/photos\?/)
  await expect(told).toBeVisible()
  // Its ten centimetres typed as ten millimetres.
  await page.getByRole('button', { name: '1 Scale' }).click()
  await page.getByRole('combobox', { name: 'In the picture lies' }).click()
  await page.getByRole('option', { name: 'A rule' }).click()
  await page.getByRole('textbox', { name: 'Between the marks' }).fill('10')
  for (const i of [0, 1]) await tap(page, at[i]!)
  await expect(page.getByText(/the camera was where nobody holds one/)).toBeVisible()
  await page.getByRole('textbox', { name: 'Between the marks' }).fill('3.37 in')
  await expect(page.getByText(/the camera was where nobody holds one/)).toBeHidden()
})

test('places come in from GPX and GeoJSON, and go out without where they lie unless that is wished', async ({
  page,
  open,
}) => {
  await open(page, '/field')
  const file = page.getByLabel('File of prints')
  const wpt = (name: string, lat: number) =>
    `<wpt lat="${lat}" lon="-3.5"><time>2026-11-30T08:00:00Z</time><name>${name}</name></wpt>`
  await page.getByLabel('with where they lie').check()
  await file.setInputFiles({
    name: 'walk.gpx',
    mimeType: 'application/gpx+xml',
    buffer: Buffer.from(
      `<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">${wpt('Otter', 54.1)}${wpt('Wader', 54.2)}</gpx>`,
    ),
  })
  await expect(page.getByText(/2 prints read in/)).toBeVisible()
  await expect(page.getByRole('link', { name: /Otter/ })).toBeVisible()
  // Nothing of where they lie was wished kept: so nothing of it goes out.
  const [out] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'GeoJSON' }).click(),
  ])
  const chunks: Buffer[] = []
  for await (const chunk of await out.createReadStream()) chunks.push(chunk as Buffer)
  const { features } = JSON.parse(Buffer.concat(chunks).toString()) as { features: { geometry: unknown }[] }
  expect(features.map((f) => f.geometry)).toEqual([null, null])
  const bomb = `<?xml version="1.0"?><!DOCTYPE gpx [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;"><!ENTITY d "&c;&c;&c;&c;&c;&c;&c;&c;&c;&c;"><!ENTITY e "&d;&d;&d;&d;&d;&d;&d;&d;&d;&d;"><!ENTITY f "&e;&e;&e;&e;&e;&e;&e;&e;&e;&e;">]><gpx>&f;&f;&f;&f;&f;&f;&f;&f;&f;&f;</gpx>`
  for (const text of [bomb, '{"type":"Featur', 'x'.repeat(200)]) {
    await file.setInputFiles({ name: 'x.gpx', mimeType: 'text/xml', buffer: Buffer.from(text) })
    await expect(page.getByText(/This is no GeoJSON and no GPX|0 prints read in/)).toBeVisible()
  }
})

test('three deadlines: dusk leaves time, a tide only with its ground, a bus none; the run counts down', async ({
  page,
  open,
}) => {
  // Where the sun stands highest about now, dusk is hours away.
  const lonDeg = (12 - new Date().getUTCHours()) * 15
  await page.context().grantPermissions(['geolocation'])
  await page.context().setGeolocation({ latitude: 10, longitude: lonDeg > 179 ? 179 : lonDeg, accuracy: 5 })
  await open(page, '/field/prints/new')
  await find(page, 'Three deadlines')
  await page.getByRole('button', { name: 'To 1 km' }).click()
  await page.getByRole('button', { name: 'Where this device is' }).click()
  await expect(page.getByText(/to 1 km$/)).toBeVisible()
  await page.getByRole('button', { name: 'Plan the pour' }).click()
  await part(page, 'deadline')
  const says = page.getByTestId('deadline')
  await page.getByRole('button', { name: /Dusk there is at/ }).click()
  await expect(says).toContainText('It fits')

  const leaveIn = (min: number) => {
    const at = new Date(Date.now() + min * 60_000)
    const two = (n: number) => String(n).padStart(2, '0')
    return page.getByLabel('One must have left by').fill(`${two(at.getHours())}:${two(at.getMinutes())}`)
  }
  await leaveIn(80)
  await expect(says).toContainText('It does not fit')
  for (const remedy of [/^Lift it with its ground$/, /^Water at /, /^In /]) {
    const row = page.getByRole('listitem').filter({ has: page.getByRole('button', { name: remedy }) })
    if (remedy.source !== '^In ') await expect(row).toContainText(/sooner/)
  }
  await leaveIn(15)
  await expect(says).toContainText('It does not fit')
  await expect(page.getByText(/not yet enough|Nothing here makes it fit/).first()).toBeVisible()
  await leaveIn(80)
  await page.getByRole('button', { name: 'Lift it with its ground' }).click()
  await expect(says).toContainText('It fits')
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'Take it to the bench' }).click()
  const counts = page.getByRole('region', { name: 'By when one must go' })
  await expect(counts).toContainText(/Dusk|The tide/)
  await expect(counts).toContainText(/Half the powder in by/)
})
