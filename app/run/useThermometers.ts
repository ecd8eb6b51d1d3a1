import { computed } from 'vue'
import { isTempChannel, toldOf, type DeviceChannel, type PourFacts, type ReadingRef } from '#core/pour'
import { celsiusFromFahrenheit } from '#core/units'
import { useDevices } from '~/stores/devices'
import { useWorkshop } from '~/stores/workshop'

/** Thermometers that sit in this pour: what each reads now, and which others there are. */
export function useThermometers(pourId: string, facts: () => PourFacts) {
  const workshop = useWorkshop()
  const devices = useDevices()
  /** Told to read °F, it does here as well. */
  function inC<T extends { tempC: number | null }>(
    device: string,
    channel: DeviceChannel,
    said: T | undefined,
  ) {
    const isF = isTempChannel(channel) && toldOf(facts(), { device, channel })?.is === 'fahrenheit'
    return said && said.tempC !== null && isF ? { ...said, tempC: celsiusFromFahrenheit(said.tempC) } : said
  }
  const all = computed(() =>
    workshop.devices.flatMap(({ id, name, uses }) => {
      const now = devices.now.get(id)
      const known = new Set<DeviceChannel>([
        ...(Object.keys(now?.temps ?? {}) as DeviceChannel[]),
        ...uses.map((u) => u.channel).filter(isTempChannel),
      ])
      return [...known].sort().map((channel) => ({
        key: `${id} ${channel}`,
        device: id,
        channel,
        name: `${name}, ${channel.slice(1)}`,
        now: inC(id, channel, now?.temps[channel]),
        isHere: now?.here ?? false,
        at: uses.find((u) => u.channel === channel)?.pourId,
      }))
    }),
  )
  return {
    put: computed(() => all.value.filter((t) => t.at === pourId)),
    /** There, reading something, and not in this pour. */
    others: computed(() => all.value.filter((t) => t.at !== pourId && typeof t.now?.tempC === 'number')),
    putHere: (device: string, channel: DeviceChannel) =>
      workshop.putDeviceTo(device, channel, { pourId, batch: facts().batch }),
    takeOff: (device: string, channel: DeviceChannel) => workshop.putDeviceTo(device, channel, null),
    cite: (device: string, channel: DeviceChannel, atMs: number): ReadingRef => ({ device, channel, atMs }),
  }
}
