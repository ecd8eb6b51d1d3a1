import { afterEach, expect, it, vi } from 'vitest'
import type { Me } from '~~/shared/people'

const PLACE = '3f0b7f0e-53b8-4d0c-9d43-0c8b9c1d2e3f.7c1d2e3f-53b8-4d0c-9d43-0c8b9c1d2e3f'
const storage = (items: Map<string, string>) => ({
  getItem: (key: string) => items.get(key) ?? null,
  setItem: (key: string, value: string) => void items.set(key, value),
  removeItem: (key: string) => void items.delete(key),
})

/** A window on a browser that stands in this place, as it is opened. */
async function openWindow(cookie: string, kept = new Map<string, string>()) {
  vi.resetModules()
  const events = { addEventListener: () => {}, removeEventListener: () => {}, dispatchEvent: () => true }
  vi.stubGlobal('document', { cookie, createElement: () => ({}), createElementNS: () => ({}) })
  vi.stubGlobal('Storage', class {})
  vi.stubGlobal('location', { port: '4443' })
  vi.stubGlobal('window', { ...events, localStorage: storage(kept), sessionStorage: storage(new Map()) })
  return { kept, ...(await import('./me')), ...(await import('./place')) }
}
afterEach(() => vi.unstubAllGlobals())

const MINA: Extract<Me, { at: 'network' }> = {
  at: 'network',
  workshopId: PLACE.split('.')[0]!,
  personId: PLACE.split('.')[1]!,
  name: 'Mina',
  role: 'looker',
  sessionId: 'x',
  device: 'Phone',
  workshopName: 'Saltmarsh Shed',
}

it('at the machine one may do all of it, and is who one says', async () => {
  const { may, me } = await openWindow('')
  expect([may('own'), may('keep'), me.value]).toEqual([true, true, undefined])
})

it('whoever has just been let in is known in the next window; until then nothing recorded is turned away', async () => {
  const before = await openWindow('')
  vi.stubGlobal('document', { ...document, cookie: `ripples_workshop_4443=${PLACE}` })
  before.welcome(MINA)
  expect(before.me.value).toBeUndefined()
  expect([...before.kept.keys()]).toEqual([`nine-ripples.me@${PLACE}`])
  const next = await openWindow(`ripples_workshop_4443=${PLACE}`, before.kept)
  expect([next.me.value?.name, next.may('look'), next.may('work'), next.may('keep')]).toEqual([
    'Mina',
    true,
    false,
    false,
  ])
  const unknown = await openWindow(`ripples_workshop_4443=${PLACE}`)
  expect([unknown.may('work'), unknown.may('keep')]).toEqual([true, false])
})
