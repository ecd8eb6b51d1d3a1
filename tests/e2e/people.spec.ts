import type { Browser, Page, Response } from '@playwright/test'
import { openHttps, type Door } from '../support/caddy'
import { DOOR_HOST } from '../support/server'
import { expect, go, pool, test, type Workshop } from './fixtures'

test.use({ demo: true })

const doors: Door[] = []
test.afterEach(() => doors.splice(0).forEach((door) => door.close()))

/** A phone of the network: what lets the network in says so of each of its requests. */
async function phoneOf(browser: Browser, byHttps = false): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    // By https it is the door that says so; its authority nobody has been told to trust here.
    ...(byHttps ? { ignoreHTTPSErrors: true } : { extraHTTPHeaders: { 'x-ripples-network': '1' } }),
  })
  await context.addInitScript(() => localStorage.setItem('nine-ripples.caution-read', 'true'))
  return context.newPage()
}

/** What the desk's code leads to, when a button is pressed that shows one. */
async function codeAfter(desk: Page, press: () => Promise<void>): Promise<string> {
  const isCode = (r: Response) => r.url().endsWith('/pairing')
  const [answer] = await Promise.all([desk.waitForResponse(isCode), press()])
  await expect(desk.getByRole('img', { name: /^Code for / })).toBeVisible()
  return ((await answer.json()) as { token: string }).token
}

async function letIn(phone: Page, { address }: Pick<Workshop, 'address'>, token: string) {
  await phone.goto(`${address}/pair#${token}`)
  await phone.waitForURL(`${address}/`)
  await phone.locator('html[data-mounted]').waitFor()
  await expect(phone.getByRole('heading', { level: 1, name: 'Bench' })).toBeVisible()
}

test('a phone is let in by a code and runs a pour begun at the desk, by name; put out in the middle it loses nothing', async ({
  browser,
  page: desk,
  open,
  workshop,
}) => {
  const { address } = workshop
  const phone = await phoneOf(browser)
  await phone.goto(address)
  await expect(phone.getByRole('heading', { name: 'This device is not let in yet' })).toBeVisible()
  await expect(phone.getByText('Saltmarsh Shed')).toHaveCount(0)

  await open(desk, '/people')
  await desk.getByLabel('Somebody else').fill('Mina')
  const token = await codeAfter(desk, () => desk.getByRole('button', { name: 'Add' }).click())
  await letIn(phone, workshop, token)
  await expect(desk.getByText('Phone is let in: Mina, caster.')).toBeVisible()
  await desk.getByRole('button', { name: 'Close' }).click()
  await expect(desk.getByText('Phone here now')).toBeVisible()
  // The code is spent: another device stays outside.
  const second = await phoneOf(browser)
  await second.goto(`${address}/pair#${token}`)
  await expect(second.getByText('This code has been used')).toBeVisible()
  // A second device of hers has a code of its own.
  const another = desk.getByRole('button', { name: 'Code for a device of Mina' })
  expect(await codeAfter(desk, () => another.click())).not.toBe(token)
  await desk.getByRole('button', { name: 'Close' }).click()

  const corbel = await workshop.db
    .selectFrom('pour_summary')
    .select('pour_id')
    .where('piece', 'like', 'Corbel%')
    .executeTakeFirstOrThrow()
  await go(phone, `/pour/${corbel.pour_id}`)
  const other = await desk.context().newPage()
  await open(other, `/pour/${corbel.pour_id}`)
  const head = (of: Page) => of.getByRole('heading', { level: 1 })
  await expect(head(phone)).toHaveText('Get the mould ready')
  await pool(phone).click()
  await expect(head(other)).toHaveText('Weigh the water')
  await expect(other.getByText(/· Mina/)).toBeVisible()

  // Put out: what is pressed is kept on the phone, and goes out when it is let in again.
  await desk.getByRole('button', { name: 'Put Mina’s Phone out' }).click()
  await expect(phone.getByText('This device is not let in any more')).toBeVisible()
  await phone.getByRole('button', { name: 'Undo' }).click()
  await expect(head(phone)).toHaveText('Get the mould ready')
  // Whoever keeps the workshop sees what is left there, and may take it; it need not wait for that.
  await expect(phone.getByText('1 thing of it lies with whoever keeps the workshop.')).toBeVisible()
  await expect(desk.getByText(/Mina was put out, and 1 thing .* came in since/)).toBeVisible()
  await expect(desk.getByRole('button', { name: 'Take it as Mina’s' })).toBeVisible()
  const again = await codeAfter(desk, () =>
    desk.getByRole('button', { name: 'Code for a device of Mina' }).click(),
  )
  await expect(head(other)).toHaveText('Weigh the water')
  await letIn(phone, workshop, again)
  await expect(head(other)).toHaveText('Get the mould ready')
  await expect(desk.getByText('came in since')).toHaveCount(0)
  await desk.getByRole('button', { name: 'Close' }).click()

  // As a looker the same phone records nothing more, and says so.
  await desk.getByRole('button', { name: 'Looker' }).first().click()
  await expect(phone.getByText('Mina looks on here')).toBeVisible()
  await go(phone, `/pour/${corbel.pour_id}`)
  await pool(phone).click()
  await expect(head(phone)).toHaveText('Get the mould ready')
  // Left, nothing of Mina can be read on it, and nobody is let in.
  await go(phone, '/settings')
  await phone.getByRole('button', { name: 'Leave this device' }).click()
  await phone.getByRole('button', { name: 'Yes, leave' }).click()
  await expect(phone.getByRole('heading', { name: 'This device is not let in yet' })).toBeVisible()
  const left = await phone.evaluate(() => [
    Object.keys(localStorage).filter((name) => name.includes('@')),
    document.cookie,
    Object.keys(localStorage).filter((name) => localStorage.getItem(name)!.includes('Mina')),
  ])
  expect(left).toEqual([[], '', []])
  const names = await workshop.db
    .selectFrom('event')
    .select('who')
    .where('pour_id', '=', corbel.pour_id)
    .execute()
  expect(names.map((e) => e.who)).toEqual(['Mina', 'Mina'])
})

test('by https and HTTP/2 a password set on the phone lets a computer in; two people at one pour, each by name', async ({
  browser,
  page: desk,
  open,
  workshop,
}) => {
  const door = await openHttps(DOOR_HOST, new URL(workshop.address).port)
  doors.push(door)
  const { address } = door
  await open(desk, '/people')
  await desk.getByLabel('Somebody else').fill('Ines')
  const phone = await phoneOf(browser, true)
  await letIn(phone, door, await codeAfter(desk, () => desk.getByRole('button', { name: 'Add' }).click()))
  await go(phone, '/settings')
  await phone.getByText('A password of your own').click()
  // On one server there are many tests; a name to sign in by there is once.
  const name = `Ines ${Date.now()}`
  await phone.getByLabel('Sign in as').fill(name)
  await phone.getByLabel('Password').fill('password1234')
  await phone.getByRole('button', { name: 'Keep it' }).click()
  await expect(phone.getByText('is one of those that are tried first')).toBeVisible()
  await phone.getByLabel('Password').fill('a teal wedge of slate')
  await phone.getByRole('button', { name: 'Keep it' }).click()
  await expect(phone.getByText(`You sign in as ${name}`)).toBeVisible()

  const computer = await phoneOf(browser, true)
  await computer.setViewportSize({ width: 1280, height: 800 })
  await computer.goto(address)
  await computer.getByLabel('Your name').fill(name)
  await computer.getByLabel('Password').fill('something else')
  await computer.getByRole('button', { name: 'Sign in' }).click()
  await expect(computer.getByText('This name and this password do not go together.')).toBeVisible()
  await computer.getByLabel('Password').fill('a teal wedge of slate')
  await computer.getByRole('button', { name: 'Sign in' }).click()
  await expect(computer.getByRole('heading', { level: 1, name: 'Bench' })).toBeVisible()
  await computer.locator('html[data-mounted]').waitFor()
  const protocols = await computer.evaluate(() =>
    performance.getEntries().flatMap((e) => ('nextHopProtocol' in e ? [e.nextHopProtocol] : [])),
  )
  expect([...new Set(protocols)]).toEqual(['h2'])

  // At the desk somebody says who they are; on the computer it is known.
  const { pour_id } = await workshop.db
    .selectFrom('pour_summary')
    .select('pour_id')
    .where('piece', 'like', 'Corbel%')
    .executeTakeFirstOrThrow()
  await go(desk, '/settings')
  await desk.getByLabel('Who works at this device').fill('Odile')
  await go(desk, `/pour/${pour_id}`)
  await pool(desk).click()
  await go(computer, `/pour/${pour_id}`)
  const head = computer.getByRole('heading', { level: 1 })
  await expect(head).toHaveText('Weigh the water')
  await computer.getByRole('button', { name: 'Undo' }).click()
  await expect(head).toHaveText('Get the mould ready')
  await expect(desk.getByRole('heading', { level: 1 })).toHaveText('Get the mould ready')
  const names = await workshop.db
    .selectFrom('event')
    .select(['who', 'who_id'])
    .where('pour_id', '=', pour_id)
    .execute()
  expect(names.map((e) => [e.who, e.who_id !== null]).sort()).toEqual([
    ['Ines', true],
    ['Odile', false],
  ])
})
