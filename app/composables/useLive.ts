import { useDebounceFn } from '@vueuse/core'
import { ref } from 'vue'
import type { ChangeMessage, HelloMessage } from '~~/shared/contracts'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { syncClock } from './useClock'

const RECONNECT_MS = 1500
const GATHER_MS = 1000

const connected = ref(true)
let started = false

/**
 * Follows the server's live stream for as long as the page is open: what changes in one window shows in the others.
 * Comes back by itself, from the number it had reached, and then sends what had waited here.
 */
export function useLive() {
  if (!started) {
    started = true
    connect(undefined)
  }
  return { connected }
}

function connect(since: number | undefined): void {
  const pours = usePours()
  const workshop = useWorkshop()
  // A run sends many changes at once: the shelf is fetched once for all of them.
  const refreshMoulds = useDebounceFn(() => workshop.loadMoulds(), GATHER_MS)
  const refreshStock = useDebounceFn(() => workshop.loadStock(), GATHER_MS)
  const source = new EventSource(since === undefined ? '/api/changes' : `/api/changes?since=${since}`)
  let reached = since

  source.addEventListener('hello', (event: MessageEvent<string>) => {
    const hello = JSON.parse(event.data) as HelloMessage
    const first = reached === undefined
    reached = hello.seq
    connected.value = true
    void syncClock()
    void pours.flush()
    if (!first && !pours.openLoaded) void pours.loadOpen()
    if (!first && hello.reset) {
      void workshop.load()
      void pours.loadOpen()
    }
  })
  source.addEventListener('change', (event: MessageEvent<string>) => {
    const change = JSON.parse(event.data) as ChangeMessage
    reached = change.seq
    if (change.topic === 'pour') {
      void pours.load(change.id)
      // What a pour says may be part of a mould's history.
      if (workshop.mouldsLoaded) refreshMoulds()
      // And it takes plaster out of a bag.
      if (workshop.stockLoaded) refreshStock()
    } else if (change.topic === 'settings') void workshop.loadSettings()
    else if (change.topic === 'plaster' || change.topic === 'bag') refreshStock()
    else if (change.topic === 'bowl') void workshop.loadBowls()
    else if (change.topic === 'recipe') void workshop.loadRecipes()
    else refreshMoulds()
  })
  source.addEventListener('error', () => {
    connected.value = false
    source.close()
    setTimeout(() => connect(reached), RECONNECT_MS)
  })
}
