import { expect, go, own, part } from './fixtures'

/** Its own server: the demo to look round in is one for all of them. */
own(
  'whoever has nothing yet looks round the demo, and comes back to a bench as it was',
  async ({ context, page, open, workshop }) => {
    await open(page, '/plan')
    await part(page, 'mould')
    await page.getByLabel('What will it be?').fill('My first tile')
    await go(page, '/')
    await page.getByRole('button', { name: 'Look round the demo workshop' }).click()
    await expect(page.getByText('Saltmarsh Shed')).toBeVisible()
    await expect(page.getByText('The demo workshop: nothing here is your own')).toBeVisible()
    await page.locator('html[data-mounted]').waitFor()
    // What is done there is done there, and what was typed at home is not there.
    await go(page, '/plan')
    await part(page, 'mould')
    await expect(page.getByLabel('What will it be?')).not.toHaveValue('My first tile')
    await page.getByLabel('What will it be?').fill('A play tile')

    // Another window goes home: this one is told, and sends nothing until it is back.
    const other = await context.newPage()
    await open(other, '/settings')
    await other.getByRole('button', { name: 'Back to my workshop' }).click()
    await expect(other.getByRole('heading', { name: 'The bench is clear' })).toBeVisible()
    await expect(page.getByText('gone into another workshop in another window')).toBeVisible()
    await page.getByRole('button', { name: 'Come along' }).click()
    await expect(page.getByRole('heading', { name: 'The bench is clear' })).toBeVisible()
    await page.locator('html[data-mounted]').waitFor()
    await go(page, '/plan')
    await part(page, 'mould')
    await expect(page.getByLabel('What will it be?')).toHaveValue('My first tile')
    const home = await fetch(`${workshop.address}/api/pours`)
    expect(await home.json()).toMatchObject({ items: [] })
  },
)

own(
  'another workshop is empty, has a name of its own, and is found again',
  async ({ page, open, workshop }) => {
    await open(page, '/settings')
    await page.getByRole('button', { name: 'Another workshop, empty' }).click()
    await expect(page.getByRole('heading', { name: 'The bench is clear' })).toBeVisible()
    await page.locator('html[data-mounted]').waitFor()
    await go(page, '/settings')
    await page.getByLabel('Its name').fill('The loft')
    await page.getByRole('button', { name: 'Keep these' }).click()
    await expect(page.getByText('You are in The loft')).toBeVisible()
    await page.getByRole('button', { name: 'Go into My workshop' }).click()
    await page.locator('html[data-mounted]').waitFor()
    await go(page, '/settings')
    await expect(page.getByRole('button', { name: 'Go into The loft' })).toBeVisible()
    const names = await workshop.owner.selectFrom('settings').select('workshop_name').execute()
    expect(names.map((n) => n.workshop_name).sort()).toEqual(['My workshop', 'The loft'])
  },
)
