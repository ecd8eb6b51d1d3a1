import { computed, onScopeDispose } from 'vue'
import { useDevices } from '~/stores/devices'
import { useWorkshop } from '~/stores/workshop'

/** Held for longer than every window of this browser takes to hear of one press. */
const ONE_PRESS_MS = 3000

/** Of all windows of this browser, one. */
function onceInThisBrowser(pressId: string, act: () => void): void {
  if (!('locks' in navigator)) {
    act()
    return
  }
  void navigator.locks.request(`nine-ripples.press ${pressId}`, { ifAvailable: true }, (lock) => {
    if (!lock) return undefined
    act()
    return new Promise((resolve) => setTimeout(resolve, ONE_PRESS_MS))
  })
}

/** Buttons on the bench that are put to this pour: a press is a knock, whichever window hears it. */
export function useBenchButtons(
  pourId: string,
  advance: (press: { id: string; atMs: number; by: string }) => void,
) {
  const workshop = useWorkshop()
  const devices = useDevices()
  const isHere = (uses: (typeof workshop.devices)[number]['uses']) =>
    uses.some((u) => u.channel === 'button' && u.pourId === pourId)

  onScopeDispose(
    devices.onPress(({ id, atMs, device }) => {
      const card = workshop.devices.find((d) => d.id === device)
      if (card && isHere(card.uses)) onceInThisBrowser(id, () => advance({ id, atMs, by: card.name }))
    }),
  )
  return {
    put: computed(() => workshop.devices.filter((d) => isHere(d.uses))),
    /** There, and no scale or thermometer: what has a button says nothing until it is pressed. */
    others: computed(() =>
      workshop.devices.filter((d) => {
        const now = devices.now.get(d.id)
        return now?.here && !now.mass && Object.keys(now.temps).length === 0 && !isHere(d.uses)
      }),
    ),
    putHere: (id: string) => workshop.putDeviceTo(id, 'button', { pourId, batch: 0 }),
    takeOff: (id: string) => workshop.putDeviceTo(id, 'button', null),
  }
}
