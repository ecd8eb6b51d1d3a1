import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { DEVICE_SILENT_MS } from '~~/shared/changes'
import type { LiveMessage } from '~~/shared/devices'
import { useDevices } from './devices'

beforeEach(() => {
  vi.useFakeTimers()
  setActivePinia(createPinia())
  return () => vi.useRealTimers()
})

const mass = (massG: number): LiveMessage => ({
  kind: 'mass',
  device: 'scale',
  atMs: 1,
  massG,
  stable: true,
  overload: false,
  zeroedAtMs: null,
})
const temp = (channel: `t${number}`, tempC: number): LiveMessage => ({
  kind: 'temperature',
  device: 'probe',
  atMs: 1,
  channel,
  tempC,
})

it('holds what each says now, socket by socket, and nothing of one that is gone or silent', () => {
  const devices = useDevices()
  devices.hear([mass(3), mass(5), temp('t1', 20), temp('t2', 40), temp('t1', 21)])
  expect(devices.now.get('scale')).toMatchObject({ mass: { massG: 5 }, here: true })
  const { temps } = devices.now.get('probe')!
  expect([temps.t1!.tempC, temps.t2!.tempC]).toEqual([21, 40])
  devices.hear([{ kind: 'here', device: 'scale', atMs: 2, here: true }])
  expect(devices.now.get('scale')!.mass!.massG).toBe(5)
  devices.hear([{ kind: 'here', device: 'scale', atMs: 3, here: false }])
  expect(devices.now.get('scale')).toEqual({ mass: undefined, temps: {}, here: false })

  vi.advanceTimersByTime(DEVICE_SILENT_MS - 1000)
  expect(devices.now.get('probe')!.here).toBe(true)
  devices.hear([temp('t1', 22)])
  vi.advanceTimersByTime(DEVICE_SILENT_MS - 1000)
  expect(devices.now.get('probe')!.here).toBe(true)
  vi.advanceTimersByTime(3000)
  expect(devices.now.get('probe')).toEqual({ mass: undefined, temps: {}, here: false })
})

it('a press is heard once, also after many others, by whoever still listens', () => {
  const devices = useDevices()
  const heard: string[] = []
  const stop = devices.onPress((press) => heard.push(press.id))
  const press = (id: number): LiveMessage => ({
    kind: 'button',
    device: 'elbow',
    atMs: 1,
    button: 1,
    id: `${id}`,
  })
  devices.hear([press(1), press(1), press(2)])
  devices.hear([press(1)])
  expect(heard).toEqual(['1', '2'])
  devices.hear(Array.from({ length: 49 }, (_, i) => press(10 + i)))
  devices.hear([press(2)])
  expect(heard).toHaveLength(51)
  stop()
  devices.hear([press(99)])
  expect(heard).not.toContain('99')
})
