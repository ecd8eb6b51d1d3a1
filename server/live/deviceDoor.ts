import type { LiveMessage, TareAsk } from '../../shared/devices'
import { useConfig } from '../config'
import { DeviceHub, type Porter } from '../devices/hub'
import { tellLive } from '../services/devices'
import { endDeviceKey, useDeviceKey } from '../services/deviceKeys'
import { isHere } from '../services/workshops'
import { databaseOf, homeWorkshop, useDatabase, type Workshop } from '../utils/database'
import { useLogger } from '../utils/logger'
import { listen, onLive } from './listening'
import { tellStreams } from './streams'

/** What one process tells the others of devices: what they say, that a scale is to zero itself, that somebody looks, that a key ends. */
type Told =
  | LiveMessage
  | { kind: 'tare'; device: string; ask: TareAsk }
  | { kind: 'look' }
  | { kind: 'key_ended'; id: string }

let hub: DeviceHub | undefined

function hear(payload: string): void {
  const { w, m } = JSON.parse(payload) as { w: string; m: Told[] }
  const said: LiveMessage[] = []
  for (const message of m)
    if (message.kind === 'tare') hub?.tare(w, message.device, message.ask)
    else if (message.kind === 'look') void lookAtStrangers(w)
    else if (message.kind === 'key_ended') hub?.endKey(w, message.id)
    else said.push(message)
  if (said.length > 0) tellStreams(w, said)
}

async function lookAtStrangers(workshopId: string): Promise<void> {
  await hub
    ?.introduce(workshopId)
    .catch((error: unknown) => useLogger().warn({ err: error }, 'devices could not be noted'))
}

/** Somebody looks at the devices: what is new among them is noted, by whichever process they are connected to. */
export async function lookForDevices({ id, db }: Workshop): Promise<void> {
  if (hub) await lookAtStrangers(id)
  else await tellLive(db, id, [{ kind: 'look' } satisfies Told])
}

/** Asks a scale to zero itself, through whichever process it is connected to. */
export async function askToZero({ id, db }: Workshop, device: string, ask: TareAsk): Promise<void> {
  await tellLive(db, id, [{ kind: 'tare', device, ask } satisfies Told])
}

/** From here on nobody comes in by this key, and whoever is in by it is out. */
export async function endKey({ id, db }: Workshop, keyId: string): Promise<void> {
  await endDeviceKey(db, keyId)
  await tellLive(db, id, [{ kind: 'key_ended', id: keyId } satisfies Told])
}

const porter: Porter = {
  home: homeWorkshop,
  byKey: async (key, device) => {
    if (key === undefined) return { refused: 'no_key', of: undefined }
    const answer = await useDeviceKey(useDatabase(), key, device)
    const { workshopId } = answer
    const workshop = workshopId === undefined ? undefined : { id: workshopId, db: databaseOf(workshopId) }
    if ('keyId' in answer) return { keyId: answer.keyId, workshop: workshop! }
    const of = workshop && (await isHere(workshop.db)) ? workshop : undefined
    return { refused: answer.refused, of }
  },
}

/** Hears what devices say to any process, and opens their doors where this one is to have them. */
export async function openDeviceDoor(): Promise<void> {
  onLive(hear)
  const { devicePort, deviceNetwork } = useConfig()
  if (devicePort === undefined && deviceNetwork === undefined) return
  const opening = new DeviceHub(porter, useLogger(), () => Date.now())
  const doors: [port: number, host?: string][] = []
  if (devicePort !== undefined) doors.push([devicePort])
  if (deviceNetwork !== undefined) {
    const [host, port] = deviceNetwork.split(':')
    doors.push([Number(port), host])
  }
  for (const [port, host] of doors)
    try {
      const at = await opening.listen(port, host)
      hub = opening
      useLogger().info({ port: at, host }, 'devices may connect')
    } catch (error) {
      // Another process of this workshop has it, or a stranger: everything else goes on.
      useLogger().warn({ err: error }, 'no devices here: the port cannot be had')
    }
  if (hub) await listen()
}

export async function closeDeviceDoor(): Promise<void> {
  await hub?.close()
}
