import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { createApp } from 'vue'
import { BENCH, benchOf } from './bench'
import { workshopClock } from './clock'
import { useShell } from './shell'

/** Locks as browsers hold them, of one name: shared by many, or had by one alone. */
class Locks {
  shared = 0
  async request(
    _name: string,
    options: { mode?: string; ifAvailable?: boolean },
    run: (lock: unknown) => unknown,
  ) {
    if (options.mode === 'shared') {
      this.shared += 1
      await run({})
      this.shared -= 1
      return undefined
    }
    return run(this.shared > 0 ? null : {})
  }
}
class Worker extends EventTarget {
  told: unknown[] = []
  constructor(public state: string) {
    super()
  }
  postMessage(message: unknown) {
    this.told.push(message)
  }
  becomes(state: string) {
    this.state = state
    this.dispatchEvent(new Event('statechange'))
  }
}
/** What the browser holds of the application. */
class Registration extends EventTarget {
  active: Worker | null = null
  waiting: Worker | null = null
  installing: Worker | null = null
  update = vi.fn(() => Promise.resolve())
  finds(worker: Worker) {
    this.installing = worker
    this.dispatchEvent(new Event('updatefound'))
  }
}

let held: Registration
let browser: EventTarget & { controller: Worker | null; register: () => Promise<Registration> }
let locks: Locks
const reload = vi.fn()

beforeEach(() => {
  vi.useFakeTimers()
  held = new Registration()
  browser = Object.assign(new EventTarget(), { controller: null, register: () => Promise.resolve(held) })
  locks = new Locks()
  reload.mockReset()
  vi.stubGlobal('navigator', { serviceWorker: browser, locks })
  vi.stubGlobal('addEventListener', () => {})
  vi.stubGlobal('location', { reload, port: '' })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

async function openWindow(isReal = true) {
  const pinia = createPinia()
  createApp({})
    .use(pinia)
    .provide(BENCH, benchOf(workshopClock, { isReal, speed: 1 }))
  setActivePinia(pinia)
  const shell = useShell()
  await shell.start()
  return shell
}
/** A newer application has come and lies ready. */
function newer(): Worker {
  const worker = new Worker('installing')
  held.finds(worker)
  worker.becomes('installed')
  return worker
}

it('the first is no newer one; from then on pages open without a network', async () => {
  const shell = await openWindow()
  expect(shell.isKept).toBe(false)
  const first = newer()
  browser.controller = first
  browser.dispatchEvent(new Event('controllerchange'))
  first.becomes('activated')
  expect([shell.isKept, shell.newer, shell.isBehind]).toEqual([true, undefined, false])
  expect(reload).not.toHaveBeenCalled()
})

it('a newer one waits while a window is at a pour before drying, and comes when somebody takes it', async () => {
  held.active = browser.controller = new Worker('activated')
  const shell = await openWindow()
  // Whoever is connected anew asks for it.
  shell.lookForNewer()
  expect(held.update).toHaveBeenCalledTimes(1)
  const worker = newer()
  expect(shell.newer).toBeDefined()
  const release = shell.keepRunning()
  expect(await shell.renew()).toBe(false)
  expect([worker.told, reload.mock.calls]).toEqual([[], []])
  release()
  await vi.waitFor(() => expect(locks.shared).toBe(0))
  expect(await shell.renew()).toBe(true)
  expect(worker.told).toEqual([{ type: 'SKIP_WAITING' }])
  browser.dispatchEvent(new Event('controllerchange'))
  expect(reload).toHaveBeenCalledTimes(1)
})

it('where another window has taken it this one is told, and loaded anew only when somebody says so', async () => {
  held.active = browser.controller = new Worker('activated')
  const shell = await openWindow()
  expect(await shell.renew()).toBe(false)
  browser.dispatchEvent(new Event('controllerchange'))
  expect([shell.isBehind, reload.mock.calls.length]).toEqual([true, 0])
  expect(await shell.renew()).toBe(true)
  expect(reload).toHaveBeenCalledTimes(1)
})

it('a rehearsal keeps nothing, and a browser that refuses works as before', async () => {
  const register = vi.spyOn(browser, 'register')
  await openWindow(false)
  expect(register).not.toHaveBeenCalled()
  register.mockRejectedValue(new Error('untrusted'))
  expect((await openWindow()).isKept).toBe(false)
})
