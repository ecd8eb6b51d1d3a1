import { afterEach, beforeEach, expect, it, vi } from 'vitest'

const ID = '3f0b7f0e-53b8-4d0c-9d43-0c8b9c1d2e3f'
// Vue looks at these two.
const browser = { cookie: '', createElement: () => ({}), createElementNS: () => ({}) }

/** A window opened now. */
async function openWindow() {
  vi.resetModules()
  return import('./place')
}

beforeEach(() => {
  browser.cookie = ''
  vi.stubGlobal('document', browser)
  vi.stubGlobal('location', { port: '4310', assign: vi.fn() })
})
afterEach(() => vi.unstubAllGlobals())

it('a window is where the browser was when it was opened; what is kept there goes by its name', async () => {
  const home = await openWindow()
  expect([home.workshopHere, home.isAtHome, home.placed('plan')]).toEqual(['home', true, 'plan'])
  browser.cookie = `look=1; ripples_workshop_4310=${ID}`
  const other = await openWindow()
  expect([other.workshopHere, other.isAtHome, other.placed('plan')]).toEqual([ID, false, `plan@${ID}`])
  home.lookWhereWeAre()
  other.lookWhereWeAre()
  expect([home.lostPlace.value, other.lostPlace.value]).toEqual(['elsewhere', undefined])
  browser.cookie = ''
  home.lookWhereWeAre()
  other.lookWhereWeAre()
  expect([home.lostPlace.value, other.lostPlace.value]).toEqual([undefined, 'elsewhere'])
})

it('a workshop of another port is not this one’s', async () => {
  browser.cookie = `ripples_workshop_431=${ID}; xripples_workshop_4310=${ID}`
  expect((await openWindow()).isAtHome).toBe(true)
})

it('goes into another, and home again', async () => {
  const { enterWorkshop } = await openWindow()
  enterWorkshop(ID)
  expect(browser.cookie).toMatch(
    new RegExp(`^ripples_workshop_4310=${ID}; path=/; samesite=strict; max-age=[1-9]`),
  )
  enterWorkshop('home')
  expect(browser.cookie).toBe('ripples_workshop_4310=; path=/; samesite=strict; max-age=0')
  expect(location.assign).toHaveBeenCalledTimes(2)
})
