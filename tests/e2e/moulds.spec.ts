import { readFileSync } from 'node:fs'
import { truncate, writeFile } from 'node:fs/promises'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { expect, part, pool, pourIdOf, storedEvents, test } from './fixtures'

const holds = (page: Page) => page.getByTestId('holds')
const way = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).click()
const file = (name: string, mimeType: string, content: string | Buffer) => ({
  name,
  mimeType,
  buffer: Buffer.from(content),
})

/** Each way used by hand once from the plan: what is done, and what the cavity then holds. */
const WAYS: [
  name: string,
  by: (page: Page) => Promise<void>,
  holdsText: string,
  thenSays?: string | RegExp,
][] = [
  [
    'Water',
    async (page) => {
      await page.getByLabel('Water that went in').fill('2 lb 3 oz')
      await page.getByLabel('Its temperature').fill('40')
    },
    // 992.2 g of water at 40 °C, where a litre of it weighs 992.2 g.
    '1000 ml',
  ],
  [
    'Grains',
    async (page) => {
      await way(page, 'Dry sand')
      await page.getByLabel('Poured out, in the jug').fill('500 ml')
      await page.getByLabel('Narrowest inside').fill('60')
    },
    '500 ml',
  ],
  [
    'Shape',
    async (page) => {
      await way(page, 'Ring')
      await page.getByLabel('Across outside').fill('20 cm')
      await page.getByLabel('Across the hole').fill('10 cm')
      await page.getByLabel('Depth to the fill').fill('1 1/2 in')
    },
    // π (10² − 5²) × 3.81 cm³
    '900 ml',
  ],
  [
    'Turned profile',
    async (page) => {
      await page.getByLabel('Profile file').setInputFiles(file('cup.csv', 'text/csv', '0,0\n50,0\n50,100'))
      await expect(page.getByText('3 points read.')).toBeVisible()
    },
    // A cylinder of 100 mm: 785 ml.
    '790 ml',
  ],
  [
    'Print in the ground',
    async (page) => {
      await page.getByLabel('Across the ring').fill('200')
      await page.getByLabel('Deepest of the print').fill('0')
      await page.getByLabel('Cover over the highest point').fill('10')
    },
    '310 ml',
    /12 mm of cover is usual/,
  ],
  [
    'Cast through gel',
    async (page) => {
      await way(page, 'By typical size')
      await page.getByLabel('Its width').fill('140')
    },
    '400 ml',
    /Only 20 mm of gel at the side/,
  ],
  [
    'Even shell',
    async (page) => {
      await way(page, 'By its area')
      await page.getByLabel('Area to cover').fill('0.1 m2')
      await page.getByLabel('Thickness of the shell').fill('24')
    },
    '2.4 l',
    /Water by the area rule: 2 l/,
  ],
  [
    'Second layer',
    async (page) => {
      await way(page, 'Dry')
      await page.getByLabel('Depth of the layer').fill('30')
    },
    '1.80 l',
    /Score it crosswise, wet it until it stops drinking, brush on a thin bonding coat/,
  ],
  [
    'Weighed cast',
    async (page) => {
      await page.getByLabel('The cast weighs').fill('1180.6 g')
    },
    // A kilogram of pottery plaster at 70 dries to 1180.6 g and was 1091 ml of slurry.
    '1.09 l',
  ],
  ['Known', async (page) => page.getByLabel('It holds').fill('750 ml'), '750 ml'],
]

test.describe('from the plan', () => {
  test.use({ shared: true })
  for (const [name, by, holdsText, thenSays] of WAYS) {
    test(`the volume by ${name.toLowerCase()}`, async ({ page, open }) => {
      await open(page, '/plan')
      const powder = page.getByTestId('powder')
      const before = await powder.innerText()
      await part(page, 'mould')
      await way(page, name)
      await by(page)
      await expect(holds(page)).toHaveText(holdsText)
      if (thenSays) await expect(page.locator('.helper')).toContainText(thenSays)
      await expect(powder).not.toHaveText(before)
      await page.getByRole('button', { name: 'Take it to the bench' }).click()
      await expect(page.getByRole('heading', { level: 1 })).toHaveText('Get the mould ready')
    })
  }
})

test('described in the plan, kept in one step, and the plan goes on from the shelf', async ({
  page,
  open,
  workshop,
}) => {
  await open(page, '/plan')
  await part(page, 'mould')
  await page.getByLabel('Length inside').fill('100')
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await expect(page.getByText('Give it a name first.')).toBeVisible()
  await page.getByLabel('Keep the mould as').fill('Little box')
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await expect(page.getByText('Little box is on the shelf.')).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'Which mould' })).toHaveText('Little box')
  await page.getByLabel('How many').fill('2')
  await expect(page.getByText('for a mould of 1.20 l')).toBeVisible()
  const stored = await workshop.db.selectFrom('mould').selectAll().executeTakeFirstOrThrow()
  expect(stored.cavity_ml).toBeCloseTo(600, 6)
})

test('parts add up, a core comes off, and two ways that disagree ask which to trust', async ({
  page,
  open,
}) => {
  await open(page, '/moulds/new')
  await page.getByText('Parts, a second way').click()
  await page.getByRole('button', { name: 'Take a part off' }).click()
  await page.getByLabel('Across inside').fill('50')
  // 200 × 150 × 40 less π 25² × 40.
  await expect(holds(page)).toHaveText('1.12 l')
  await page.getByLabel('Cavities of this size').fill('2')
  await expect(holds(page)).toHaveText('2.24 l')
  await page.getByRole('button', { name: 'Check it another way' }).click()
  await page.getByLabel('Water that went in').fill('3 kg')
  await expect(page.getByText('The two ways give')).toBeVisible()
  await page.getByRole('group', { name: 'Which figure to go by' }).getByText('The second').click()
  await expect(holds(page)).toHaveText('3.00 l')
  // Taken off is more than there is: said at once, and what was typed stays.
  await page.getByRole('button', { name: /^− Cylinder/ }).click()
  await page.getByLabel('Across inside').fill('500')
  await expect(page.getByText('What is taken off is as much as there is')).toBeVisible()
  await page.getByLabel('Its name').fill('Too hollow')
  await page.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(page.getByRole('alert')).toHaveText('Its volume does not add up yet.')
  await expect(page.getByLabel('Across inside')).toHaveValue('500 mm')
})

test('a profile drawn by mouse and by keys; bad files are refused and the drawing stands', async ({
  page,
  open,
}) => {
  await open(page, '/moulds/new')
  await way(page, 'Turned profile')
  const rim = page.getByRole('button', { name: /^Point 4 of 4/ })
  await rim.scrollIntoViewIfNeeded()
  const first = await holds(page).innerText()
  const box = (await rim.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x - 60, box.y + box.height / 2, { steps: 8 })
  await page.mouse.up()
  await expect(holds(page)).not.toHaveText(first)
  await expect(page.getByText(/Undercut of [\d.]+ mm between/)).toBeVisible()
  await rim.focus()
  await page.keyboard.press('Shift+ArrowUp')
  await expect(page.getByRole('button', { name: /^Point 4 of 4.* 90 mm up/ })).toBeVisible()
  await page.keyboard.press('+')
  await expect(page.getByRole('button', { name: /^Point 5 of 5/ })).toBeVisible()

  const drawn = await holds(page).innerText()
  const input = page.getByLabel('Profile file')
  for (const [bad, says] of [
    [file('p.svg', 'image/svg+xml', '<svg><circle r="4"/></svg>'), 'There is no path in this SVG.'],
    [file('p.svg', 'image/svg+xml', '<svg><path d="M 0 0 L banana"/></svg>'), 'This path cannot be read'],
    [file('p.csv', 'text/csv', 'radius,height\n1,2\nx,y'), 'Not numbers: 3: x,y.'],
  ] as const) {
    await input.setInputFiles(bad)
    await expect(page.getByRole('alert')).toContainText(says)
    await expect(holds(page)).toHaveText(drawn)
  }
  const many = Array.from({ length: 10_000 }, (_, i) => `${60 + 20 * Math.sin(i / 900)},${i / 50}`).join('\n')
  await input.setInputFiles(file('scan.csv', 'text/csv', many))
  await expect(page.getByText(/^10000 points read, thinned to \d+ that keep the form\.$/)).toBeVisible()
  await input.setInputFiles(file('knot.csv', 'text/csv', '0,0\n60,40\n60,10\n20,50\n20,80'))
  await expect(page.getByText('The line crosses itself')).toBeVisible()
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV', exact: true }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toContain('radius_mm,height_mm,smooth')
})

/** Tabs on until the element with this accessible name has the focus. */
async function tabTo(page: Page, role: Parameters<Page['getByRole']>[0], name: string | RegExp) {
  const wanted = page.getByRole(role, { name, exact: typeof name === 'string' }).first()
  for (let i = 0; i < 120; i++) {
    await page.keyboard.press('Tab')
    if (await wanted.evaluate((el) => el === document.activeElement || el.contains(document.activeElement)))
      return
  }
  throw new Error(`no way by keyboard to ${String(name)}`)
}

test('a mould described by keyboard only', async ({ page, open }) => {
  await open(page, '/moulds')
  await tabTo(page, 'link', 'Describe a mould')
  await page.keyboard.press('Enter')
  await page.waitForURL(/\/moulds\/new/)
  await tabTo(page, 'textbox', 'Its name')
  await page.keyboard.type('By keys alone')
  await tabTo(page, 'button', 'Water')
  await page.keyboard.press('Enter')
  await tabTo(page, 'textbox', 'Water that went in')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('640 g')
  await tabTo(page, 'combobox', 'Made of')
  await page.keyboard.press('ArrowDown')
  await page.getByRole('listbox').waitFor()
  await page.keyboard.type('Metal')
  await page.keyboard.press('Enter')
  await tabTo(page, 'button', 'Slight')
  await page.keyboard.press('Space')
  await expect(page.getByText('It cannot let go')).toBeVisible()
  await tabTo(page, 'button', 'Put it on the shelf')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('By keys alone')
  await expect(page.getByText('641 ml')).toBeVisible()
})

test.describe('the shelf of the demo workshop', () => {
  test.use({ demo: true })

  test('shows every mould as a section, finds, filters and sorts', async ({ page, open }) => {
    await open(page, '/moulds')
    await expect(page.getByRole('img', { name: /^Section of/ })).toHaveCount(15)
    await expect(page.getByText('form not drawn')).toHaveCount(0)
    await page.getByLabel('Search').fill('children')
    await expect(page.getByText('1 mould', { exact: true })).toBeVisible()
    await page.getByLabel('Search').fill('')
    await page.getByRole('button', { name: 'For leftovers' }).click()
    await expect(page.locator('.tile')).toHaveCount(2)
    await page.getByRole('button', { name: 'Look at these' }).click()
    await expect(page.getByRole('link', { name: /Chart tile/ })).toContainText('Time to make another')
    await page.getByRole('button', { name: 'All' }).click()
    await page.getByRole('combobox', { name: 'Order' }).click()
    await page.getByRole('option', { name: 'largest first' }).click()
    await expect(page.locator('.tile').first()).toContainText('Corbel')
  })

  test('a set is planned in one step, leftovers go to the spill moulds, and the run asks for this mould’s preparation', async ({
    page,
    open,
    workshop,
  }) => {
    await open(page, '/moulds')
    await page.getByRole('link', { name: 'Plan it' }).click()
    await part(page, 'mould')
    await expect(page.getByRole('combobox', { name: 'Which set' })).toHaveText('Touch table, one of each')
    await expect(page.getByTestId('leftover')).toContainText('Limpet')
    await page.getByRole('button', { name: 'Take it to the bench' }).click()
    await page.waitForURL(/\/pour\//)
    const id = pourIdOf(page)
    const taped = page.getByRole('checkbox', { name: 'Keys matched, taped firm but not tight' })
    await taped.click()
    await expect(taped).toBeChecked()
    await expect.poll(async () => (await storedEvents(workshop, id)).map((e) => e.type)).toEqual(['prepared'])
    await taped.click()
    await expect(taped).not.toBeChecked()
    await pool(page).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Weigh the water')
  })

  test('damage noted at the piece shows at the mould, and the plan warns before the next', async ({
    page,
    open,
  }) => {
    await open(page, '/')
    await page.getByRole('link', { name: /of 9 Seal’s jaw/ }).click()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Take it out')
    await page.goBack()
    await page.getByRole('link', { name: /Tide-clock face/ }).click()
    await page.getByRole('button', { name: 'Mould', exact: true }).click()
    await page.getByRole('button', { name: 'Detail lost' }).click()
    await page.getByRole('button', { name: 'Keep it' }).click()
    await page.getByRole('link', { name: 'Moulds', exact: true }).click()
    await page.getByRole('link', { name: /Tide-clock face/ }).click()
    await expect(page.getByText(/^Detail lost, /)).toBeVisible()
    await page.getByRole('link', { name: 'Plan a pour' }).click()
    await expect(page.getByText('Time to make another: 1 cast so far')).toBeVisible()
  })

  test('photos: a real one is kept, others are refused at the place', async ({ page, open }, testInfo) => {
    await open(page, '/moulds')
    await page.getByRole('link', { name: /Corbel/ }).click()
    const input = page.getByLabel('Photo file')
    const photo = await sharp({ create: { width: 900, height: 600, channels: 3, background: '#a86' } })
      .jpeg()
      .toBuffer()
    await input.setInputFiles(file('jacket.jpg', 'image/jpeg', photo))
    await expect(page.getByRole('img', { name: 'jacket', exact: true })).toBeVisible()
    await input.setInputFiles(file('notes.jpg', 'image/jpeg', 'no picture'))
    await expect(page.locator('main').getByRole('alert')).toContainText(
      'notes.jpg: This file is not a picture',
    )
    const huge = testInfo.outputPath('huge.jpg')
    await writeFile(huge, '')
    await truncate(huge, 40 * 1024 * 1024)
    await input.setInputFiles(huge)
    await expect(page.locator('main').getByRole('alert')).toContainText(
      'huge.jpg: This photo is larger than 25 MB',
    )
    await page.getByRole('button', { name: 'Remove jacket' }).click()
    await expect(page.getByText('No photo yet')).toBeVisible()
  })

  test('the shelf out to a file and in again; a broken file says where', async ({ page, open }) => {
    await open(page, '/moulds')
    const [json] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'JSON', exact: true }).click(),
    ])
    const input = page.getByLabel('File of moulds')
    await input.setInputFiles(
      await json.path().then((p) => file('moulds.json', 'application/json', readFileSync(p))),
    )
    await expect(page.getByText('0 put on the shelf; 15 there already')).toBeVisible()
    await input.setInputFiles(file('moulds.json', 'application/json', '{"format":'))
    await expect(page.locator('main').getByRole('alert')).toContainText('The message could not be read.')
    await input.setInputFiles(
      file('moulds.csv', 'text/csv', 'name,material,holds_ml\nWhelk,silicone,300\nCrab,jelly,200'),
    )
    await expect(page.getByText('1 put on the shelf')).toBeVisible()
    await expect(page.locator('main').getByRole('alert')).toContainText(
      'Line 3, material: a word not known here (jelly).',
    )
    await expect(page.getByRole('link', { name: /Whelk/ })).toBeVisible()
  })

  test('changed in two windows: the second is told, keeps what was typed, and may keep it after all', async ({
    context,
    page,
    open,
  }) => {
    await open(page, '/moulds')
    await page.getByRole('link', { name: /Limpet/ }).click()
    await page.getByRole('link', { name: 'Change it' }).click()
    await page.waitForURL(/\/edit$/)
    const other = await context.newPage()
    await open(other, new URL(page.url()).pathname)
    await other.getByLabel('Note').fill('From the other window')
    await other.getByRole('button', { name: 'Keep it so' }).click()
    await expect(other.getByText('From the other window')).toBeVisible()
    await page.getByLabel('Note').fill('From this window')
    await page.getByRole('button', { name: 'Keep it so' }).click()
    const both = page.getByRole('alert').filter({ hasText: 'Somebody else changed this meanwhile' })
    await expect(both.getByRole('row', { name: 'Note From this window From the other window' })).toBeVisible()
    await expect(page.getByLabel('Note')).toHaveValue('From this window')
    await page.getByRole('button', { name: 'Keep mine' }).click()
    await expect(page.getByText('From this window')).toBeVisible()
  })
})
