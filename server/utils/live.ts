import { MS_PER } from '../../core/units'
import { BEAT_MS, type BeatMessage, type ChangeMessage } from '../../shared/changes'
import type { LiveMessage, TareAsk } from '../../shared/devices'
import { ChangeListener } from '../services/changeListener'
import { ChangeFeed, pruneChanges } from '../services/changes'
import { useConfig } from '../config'
import { DeviceHub } from '../devices/hub'
import { pruneReadings, tellLive } from '../services/devices'
import { databaseOf, soleWorkshop, type Workshop } from './database'
import { useLogger } from './logger'

/** A window away for longer loads everything again. */
const KEPT_MS = 7 * MS_PER.day

const feeds = new Map<string, ChangeFeed>()
let listener: Promise<ChangeListener> | undefined
let pruning: NodeJS.Timeout | undefined

async function startListening(): Promise<ChangeListener> {
  const made = new ChangeListener(useConfig().databaseUrl, {
    onWake: (workshopId) => {
      if (workshopId !== undefined) feeds.get(workshopId)?.wake()
      else for (const feed of feeds.values()) feed.wake()
    },
    onLive: hearLive,
    log: useLogger(),
  })
  await made.start()
  return made
}

/** What one process tells the others of devices: what they say, that a scale is to zero itself, that somebody looks. */
export interface LivePayload {
  /** The workshop. */
  w: string
  m: (LiveMessage | { kind: 'tare'; device: string; ask: TareAsk } | { kind: 'look' })[]
}

let hub: DeviceHub | undefined

function hearLive(payload: string): void {
  const { w, m } = JSON.parse(payload) as LivePayload
  const said: LiveMessage[] = []
  for (const message of m)
    if (message.kind === 'tare') hub?.tare(message.device, message.ask)
    else if (message.kind === 'look') void lookAtStrangers()
    else said.push(message)
  if (said.length === 0) return
  const text = sseOf('live', said)
  for (const stream of streams) if (stream.workshopId === w) stream.write(text)
}

async function lookAtStrangers(): Promise<void> {
  await hub
    ?.introduce()
    .catch((error: unknown) => useLogger().warn({ err: error }, 'devices could not be noted'))
}

/** Somebody looks at the devices: what is new among them is noted, by whichever process they are connected to. */
export async function lookForDevices({ id, db }: Workshop): Promise<void> {
  const look: LivePayload['m'] = [{ kind: 'look' }]
  if (hub) await lookAtStrangers()
  else await tellLive(db, id, look)
}

/** Opens the devices' door, where this process is to have one. */
export async function openDeviceHub(): Promise<void> {
  const { devicePort } = useConfig()
  if (devicePort === undefined) return
  const opening = new DeviceHub(soleWorkshop, useLogger(), () => Date.now())
  try {
    const port = await opening.listen(devicePort)
    hub = opening
    useLogger().info({ port }, 'devices may connect')
  } catch (error) {
    // Another process of this workshop has it, or a stranger: everything else goes on.
    useLogger().warn({ err: error }, 'no devices here: the port cannot be had')
    return
  }
  listener ??= startListening()
}

export async function closeDeviceHub(): Promise<void> {
  await hub?.close()
}

function prune(): void {
  for (const id of feeds.keys())
    pruneChanges(databaseOf(id), KEPT_MS, Date.now()).catch((error: unknown) =>
      useLogger().warn({ err: error }, 'the change log could not be pruned'),
    )
  for (const id of feeds.keys())
    pruneReadings(databaseOf(id), KEPT_MS, Date.now()).catch((error: unknown) =>
      useLogger().warn({ err: error }, 'old readings could not be pruned'),
    )
}

/** A workshop's change feed, started with its first live stream. */
export async function useChangeFeed({ id, db }: Workshop): Promise<ChangeFeed> {
  listener ??= startListening()
  await listener
  let feed = feeds.get(id)
  if (!feed) {
    feed = new ChangeFeed(db, useLogger())
    feeds.set(id, feed)
    prune()
  }
  pruning ??= setInterval(prune, MS_PER.h)
  await feed.start()
  return feed
}

export async function stopChangeFeeds(): Promise<void> {
  clearInterval(pruning)
  await (await listener)?.stop()
}

/** An open stream's way out. */
export interface Stream {
  address: string
  workshopId: string
  write: (text: string) => void
  close: () => void
}

const streams = new Set<Stream>()
let beating: NodeJS.Timeout | undefined

export const MOST_STREAMS = 1000
/** One address or one workshop leaves room for the others. */
const MOST_STREAMS_OF_ONE = 500

export function hasRoomFor(address: string, workshopId: string): boolean {
  const open = [...streams]
  return (
    open.length < MOST_STREAMS &&
    open.filter((s) => s.address === address).length < MOST_STREAMS_OF_ONE &&
    open.filter((s) => s.workshopId === workshopId).length < MOST_STREAMS_OF_ONE
  )
}

/** Keeps a stream's heart beating and remembers how to end it; returns the way to forget it again. */
export function trackStream(stream: Stream): () => void {
  streams.add(stream)
  beating ??= setInterval(() => {
    const beat: BeatMessage = { serverTimeMs: Date.now() }
    const text = sseOf('beat', beat)
    for (const open of streams) open.write(text)
  }, BEAT_MS)
  return () => streams.delete(stream)
}

/** An open stream would hold the server up for half a minute when it is asked to stop. */
export function closeStreams(): void {
  clearInterval(beating)
  for (const stream of streams) stream.close()
}

/** One message of a stream of server-sent events. */
export function sseOf(event: string, data: object, id?: number): string {
  return `${id === undefined ? '' : `id: ${id}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`
}

const written = new WeakMap<ChangeMessage, string>()

/** Written once, however many windows hear it. */
export function sseOfChange(message: ChangeMessage): string {
  let text = written.get(message)
  if (text === undefined) {
    text = sseOf('change', message, message.seq)
    written.set(message, text)
  }
  return text
}
