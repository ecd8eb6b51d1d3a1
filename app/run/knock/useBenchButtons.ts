import { useKept } from '~/stores/kept'
import { computed, onScopeDispose } from 'vue'
import type { DeviceUse } from '~~/shared/devices'
import { useDevices } from '~/stores/devices'
import { placed } from '~/stores/place'
import { useWorkshop } from '~/stores/workshop'
import { holdBackMs, type KnownBy } from './pressed'

/** Held for longer than every window of this browser takes to hear of one press and to act on it. */
const ONE_PRESS_MS = 5000

/** Of all windows of this browser, one. */
function onceInThisBrowser(pressId: string, act: () => void): void {
  if (!('locks' in navigator)) {
    act()
    return
  }
  void navigator.locks.request(placed(`nine-ripples.press ${pressId}`), { ifAvailable: true }, (lock) => {
    if (!lock) return undefined
    act()
    return new Promise((resolve) => setTimeout(resolve, ONE_PRESS_MS))
  })
}

export interface Press {
  id: string
  atMs: number
  by: string
}
/** What a press comes to in this window: decided at once, done once it is this window's turn. */
export interface Pressed {
  /** Undefined where nothing is weighed: then every window says the same. */
  knownBy: KnownBy | undefined
  act: () => void
}

/** Buttons on the bench that are put to this pour: a press is a knock, and of all windows the one that knows best acts on it. */
export function useBenchButtons(pourId: string, decide: (press: Press) => Pressed) {
  const workshop = useWorkshop()
  const devices = useDevices()
  const useHere = (uses: readonly DeviceUse[]) =>
    uses.find((u) => u.channel === 'button' && u.pourId === pourId)
  /** Of each button that was put somewhere from this browser, since when. */
  const putFromHere = useKept<Record<string, number>>('nine-ripples.buttons', {})
  const isHome = (id: string, use: DeviceUse) => putFromHere.value[id] === use.sinceMs

  onScopeDispose(
    devices.onPress(({ id, atMs, device }) => {
      const card = workshop.devices.find((d) => d.id === device)
      const use = card && useHere(card.uses)
      if (!use) return
      const { knownBy, act } = decide({ id, atMs, by: card.name })
      const waitMs = knownBy === undefined ? 0 : holdBackMs(knownBy, isHome(device, use))
      if (waitMs === undefined) return
      setTimeout(() => onceInThisBrowser(id, act), waitMs)
    }),
  )
  const put = computed(() => workshop.devices.filter((d) => useHere(d.uses)))
  return {
    put,
    /** One was put here from another device. */
    elsewhere: computed(() => put.value.some((d) => !isHome(d.id, useHere(d.uses)!))),
    /** There, and no scale or thermometer: what has a button says nothing until it is pressed. */
    others: computed(() =>
      workshop.devices.filter((d) => {
        const now = devices.now.get(d.id)
        return now?.here && !now.mass && Object.keys(now.temps).length === 0 && !useHere(d.uses)
      }),
    ),
    async putHere(id: string) {
      const answer = await workshop.putDeviceTo(id, 'button', { pourId, batch: 0 })
      const use = answer.ok ? useHere(answer.value.uses) : undefined
      if (use) putFromHere.value = { ...putFromHere.value, [id]: use.sinceMs }
    },
    takeOff: (id: string) => workshop.putDeviceTo(id, 'button', null),
  }
}
