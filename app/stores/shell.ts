import { defineStore } from 'pinia'
import { ref } from 'vue'
import { useBench } from './bench'
import { placed } from './place'

/** Held by each window at a pour that is before drying: nothing is put in its place meanwhile. */
const RUNNING = placed('nine-ripples.running')
const LOOK_EVERY_MS = 15 * 60_000

/** Chromium asks whether it may be installed; others have it in a menu of their own. */
interface InstallPrompt extends Event {
  prompt: () => Promise<unknown>
}

/**
 * The application as this device keeps it: so that it opens without a network, and so that a newer one never comes in
 * between. What is new waits until nobody here is at a pour, and until somebody says so.
 */
export const useShell = defineStore('shell', () => {
  const { isReal } = useBench()
  /** Pages open without a network from now on. */
  const isKept = ref(false)
  /** A newer one lies ready. */
  const newer = ref<ServiceWorker>()
  /** Another window has taken it: this one is still what it was. */
  const isBehind = ref(false)
  const install = ref<InstallPrompt>()

  function watchFor(worker: ServiceWorker) {
    const look = () => {
      if (worker.state === 'installed' && navigator.serviceWorker.controller) newer.value = worker
      if (worker.state === 'activated') isKept.value = true
    }
    look()
    worker.addEventListener('statechange', look)
  }

  let held: ServiceWorkerRegistration | undefined
  /** Asks whether there is a newer one; of itself a browser does when it sees fit. */
  function lookForNewer(): void {
    void held?.update().catch(() => undefined)
  }

  let takes = false
  async function start(): Promise<void> {
    addEventListener('beforeinstallprompt', (event) => {
      event.preventDefault()
      install.value = event as InstallPrompt
    })
    // Where pages come by plain http the browser has none; in development nothing is kept.
    if (!isReal || import.meta.dev || !('serviceWorker' in navigator)) return
    let isFirst = !navigator.serviceWorker.controller
    navigator.serviceWorker.addEventListener('controllerchange', () => {
      if (takes) location.reload()
      else if (!isFirst) isBehind.value = true
      isFirst = false
    })
    try {
      held = await navigator.serviceWorker.register('/sw.js', { updateViaCache: 'none' })
      isKept.value = held.active !== null
      for (const worker of [held.waiting, held.installing]) if (worker) watchFor(worker)
      held.addEventListener('updatefound', () => held?.installing && watchFor(held.installing))
      setInterval(lookForNewer, LOOK_EVERY_MS)
    } catch {
      // Refused, as where the certificate is not trusted: everything else works.
    }
  }

  /** Takes the newer one, unless a window of this browser is at a pour before drying. @returns whether it did. */
  async function renew(): Promise<boolean> {
    if (isBehind.value) {
      location.reload()
      return true
    }
    const worker = newer.value
    if (!worker) return false
    return navigator.locks.request(RUNNING, { ifAvailable: true }, (lock) => {
      if (!lock) return false
      takes = true
      worker.postMessage({ type: 'SKIP_WAITING' })
      return true
    })
  }

  /** Nothing is put in the place of what this window runs, until what it gives back is called. */
  function keepRunning(): () => void {
    let release = () => {}
    const done = new Promise<void>((resolve) => (release = resolve))
    if ('locks' in navigator)
      navigator.locks.request(RUNNING, { mode: 'shared' }, () => done).catch(() => undefined)
    return release
  }

  return { isKept, newer, isBehind, install, start, lookForNewer, renew, keepRunning }
})
