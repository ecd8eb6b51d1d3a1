import { newId } from '~~/shared/newId'
import { computed, watch } from 'vue'
import type { ReadingRef } from '#core/pour'
import { useBench } from '~/stores/bench'
import { useDevices } from '~/stores/devices'
import { useWorkshop } from '~/stores/workshop'
import { useScale } from './useScale'
import type { ScaleSays } from './weighStep'

/**
 * The scale that stands under this pour's bowl: one on this device's own line, else the one that was put to the pour.
 * It stays until it is taken off, from bowl to bowl.
 */
export function useBowlScale(pourId: string, batch: () => number | undefined) {
  const workshop = useWorkshop()
  const devices = useDevices()
  const line = useScale()
  const { isReal } = useBench()

  const useOf = (id: string) =>
    workshop.devices.find((d) => d.id === id)?.uses.find((u) => u.channel === 'mass' && u.pourId === pourId)
  // At a rehearsal nothing is heard of the workshop's devices.
  const device = computed(() => (isReal ? workshop.devices.find((d) => useOf(d.id)) : undefined))
  // What it reads from here on is of the next bowl.
  watch([device, batch], ([under, bowl]) => {
    if (under && bowl !== undefined && useOf(under.id)!.batch !== bowl)
      void workshop.putDeviceTo(under.id, 'mass', { pourId, batch: bowl })
  })

  const now = computed(() => device.value && devices.now.get(device.value.id))
  const says = computed<ScaleSays | undefined>(() =>
    line.connected.value ? line.says.value : now.value?.mass,
  )
  /** Scales that are there and stand under nothing of this pour; `elsewhere` where they stand under another's bowl. */
  const others = computed(() =>
    workshop.devices
      .filter((d) => d !== device.value && devices.now.get(d.id)?.mass)
      .map(({ id, name, uses }) => ({ id, name, elsewhere: uses.some((u) => u.channel === 'mass') })),
  )

  return {
    line,
    says,
    /** There is one, on this device's own line or put here, whether or not it says anything. */
    isExpected: computed(() => line.connected.value || device.value !== undefined),
    /** Only this window hears it. */
    isOwn: computed(() => line.connected.value),
    name: computed(() => (line.connected.value ? 'Your scale' : (device.value?.name ?? ''))),
    /** One was put here, and says nothing. */
    isGone: computed(() => !line.connected.value && device.value !== undefined && !now.value?.here),
    isPut: computed(() => device.value !== undefined),
    others,
    /** @param askId the press that asks, where every window hears it. */
    zero(askId: string = newId()) {
      if (line.connected.value) line.zero()
      else if (device.value)
        void workshop.tareDevice(device.value.id, {
          id: askId,
          zeroedAtMs: says.value?.zeroedAtMs ?? null,
        })
    },
    put: (id: string) => workshop.putDeviceTo(id, 'mass', { pourId, batch: batch() ?? 0 }),
    takeOff() {
      if (device.value) void workshop.putDeviceTo(device.value.id, 'mass', null)
    },
    /** Where a recorded mass came from. */
    cite(from: ScaleSays): { reading?: ReadingRef } {
      return line.connected.value || !device.value
        ? {}
        : { reading: { device: device.value.id, channel: 'mass', atMs: from.atMs } }
    },
  }
}
