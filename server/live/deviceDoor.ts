import type { LiveMessage, TareAsk } from '../../shared/devices'
import { useConfig } from '../config'
import { DeviceHub } from '../devices/hub'
import { tellLive } from '../services/devices'
import { homeWorkshop, type Workshop } from '../utils/database'
import { useLogger } from '../utils/logger'
import { listen, onLive } from './listening'
import { tellStreams } from './streams'

/** What one process tells the others of devices: what they say, that a scale is to zero itself, that somebody looks. */
type Told = LiveMessage | { kind: 'tare'; device: string; ask: TareAsk } | { kind: 'look' }

let hub: DeviceHub | undefined

function hear(payload: string): void {
  const { w, m } = JSON.parse(payload) as { w: string; m: Told[] }
  const said: LiveMessage[] = []
  for (const message of m)
    if (message.kind === 'tare') hub?.tare(message.device, message.ask)
    else if (message.kind === 'look') void lookAtStrangers()
    else said.push(message)
  if (said.length > 0) tellStreams(w, said)
}

async function lookAtStrangers(): Promise<void> {
  await hub
    ?.introduce()
    .catch((error: unknown) => useLogger().warn({ err: error }, 'devices could not be noted'))
}

/** Somebody looks at the devices: what is new among them is noted, by whichever process they are connected to. */
export async function lookForDevices({ id, db }: Workshop): Promise<void> {
  if (hub) await lookAtStrangers()
  else await tellLive(db, id, [{ kind: 'look' } satisfies Told])
}

/** Asks a scale to zero itself, through whichever process it is connected to. */
export async function askToZero({ id, db }: Workshop, device: string, ask: TareAsk): Promise<void> {
  await tellLive(db, id, [{ kind: 'tare', device, ask } satisfies Told])
}

/** Hears what devices say to any process, and opens their door where this one is to have it. */
export async function openDeviceDoor(): Promise<void> {
  onLive(hear)
  const { devicePort } = useConfig()
  if (devicePort === undefined) return
  const opening = new DeviceHub(homeWorkshop, useLogger(), () => Date.now())
  try {
    const port = await opening.listen(devicePort)
    hub = opening
    useLogger().info({ port }, 'devices may connect')
  } catch (error) {
    // Another process of this workshop has it, or a stranger: everything else goes on.
    useLogger().warn({ err: error }, 'no devices here: the port cannot be had')
    return
  }
  await listen()
}

export async function closeDeviceDoor(): Promise<void> {
  await hub?.close()
}
