import { randomUUID } from 'node:crypto'
import { DEVICE_BEAT_MS } from '../../shared/changes'
import { DEVICE_PROTOCOL, type DeviceCommand, type DeviceMessage } from '../../shared/deviceLine'
import { NO_ZERO, askedToZero, watchZero, zeroAfterSilence, zeroStanding, type Zero } from '../../core/mix'
import type { DeviceChannel } from '../../core/pour'
import type { LiveMessage, Refusal, TareAsk } from '../../shared/devices'
import {
  keepReadings,
  lastAtNothing,
  meetDevice,
  renameDevice,
  tellLive,
  type ReadingToKeep,
} from '../services/devices'
import type { Workshop } from '../utils/database'
import { Thinning } from './thinning'

/** A scale that was asked to zero itself has heard of it by then: what it says sooner may be of the zero before. */
const HEARD_WITHIN_MS = 400
/** A person's button; more is a loose contact. */
const MOST_PRESSES = 20
/** Windows that hear one press all answer it within moments. */
const REMEMBERED_ASKS = 20
/** What was not heard and who was turned away are told so often, and of so many. */
const TELL_AGAIN_MS = 5000
const MOST_REFUSALS = 20
/** Nobody comes back with a zero that stands by then. */
const FORGOTTEN_MS = 3_600_000

export interface Log {
  info(details: object, message: string): void
  warn(details: object, message: string): void
}

type MassSaid = Extract<DeviceMessage, { type: 'mass' }>

/** A device's line, once it is known who is on it. */
export interface Line {
  readonly device: string
  /** By which key it was let in; undefined at the machine itself, where none is wanted. */
  readonly keyId: string | undefined
  readonly write: (command: DeviceCommand) => void
  readonly end: () => void
}
interface Heard {
  toldHereMs: number
  /** Undefined before the first. */
  lastMass: MassSaid | undefined
  lastMassMs: number
  /** The requests to zero that it was told of. */
  asks: string[]
}

/**
 * Devices of one workshop: what they say is told to all processes several times a second, the latest of each channel; what
 * is worth keeping is kept. Holds nothing that is lost with it: a device that loses its line comes again.
 */
export class BenchDevices {
  private readonly lines = new Map<Line, Heard>()
  private readonly waiting = new Map<string, LiveMessage>()
  private toKeep: ReadingToKeep[] = []
  private readonly thinning = new Thinning()
  /** Of each scale; outlives its line. */
  private readonly zeros = new Map<string, Zero>()
  /** Names that the workshop knows, as far as they have been here. */
  private readonly known = new Set<string>()
  /** Names that the workshop does not know, of lines that are here: kept for whoever looks. */
  private readonly strangers = new Map<string, string>()
  private readonly dropped = new Map<string, number>()
  private toldDroppedMs = 0
  private readonly refusals = new Map<string, number>()
  private telling: Promise<void> | undefined
  private failing = false
  private lastHereMs: number

  constructor(
    private readonly workshop: Workshop,
    private readonly log: Log,
    private readonly nowMs: () => number,
  ) {
    this.lastHereMs = nowMs()
  }

  get size(): number {
    return this.lines.size
  }
  /** Nobody is here, and nothing is left to be remembered. */
  get isForgotten(): boolean {
    return this.lines.size === 0 && !this.telling && this.nowMs() - this.lastHereMs > FORGOTTEN_MS
  }
  knows(device: string): boolean {
    return this.known.has(device)
  }
  async settled(): Promise<void> {
    await this.telling
  }

  /** Whether one by this name is here that came in another way: then its name is its own. */
  isHeldBy(device: string, keyId: string | undefined): boolean {
    return [...this.lines.keys()].some((l) => l.device === device && l.keyId !== keyId)
  }

  /**
   * Tells a scale that is connected here to zero itself. Again, or late, when it has come to nothing meanwhile (the same
   * bowl back on a scale that was zeroed with it), it would lose what has gone in since: such a request is done already.
   */
  tare(device: string, ask: TareAsk): void {
    const [line, heard] = [...this.lines].find(([l]) => l.device === device) ?? []
    if (!line || !heard || heard.asks.includes(ask.id)) return
    heard.asks = [...heard.asks, ask.id].slice(-REMEMBERED_ASKS)
    if ((this.zeros.get(device)?.atMs ?? 0) > (ask.zeroedAtMs ?? 0)) return
    const nowMs = this.nowMs()
    this.zeros.set(device, askedToZero(nowMs, nowMs + HEARD_WITHIN_MS, heard.lastMass))
    line.write({ type: 'tare' })
  }

  /** Somebody looks at what is there: devices that nobody knew are noted from here on. */
  async introduce(): Promise<void> {
    const met = [...this.strangers]
    this.strangers.clear()
    for (const [device, name] of met)
      if (await meetDevice(this.workshop.db, device, name)) this.known.add(device)
      else this.log.warn({ device }, 'a device is not noted: the workshop knows too many')
  }

  /** What comes by this key is let in no longer. */
  endKey(keyId: string): void {
    for (const line of this.lines.keys()) if (line.keyId === keyId) line.end()
  }

  meet(line: Line, name: string): void {
    const { device } = line
    // The one that came last is believed: a line that broke is noticed late on this side.
    for (const other of this.lines.keys())
      if (other !== line && other.device === device) {
        this.lines.delete(other)
        other.end()
      }
    this.lines.set(line, { toldHereMs: 0, lastMass: undefined, lastMassMs: 0, asks: [] })
    line.write({ type: 'welcome', protocol: DEVICE_PROTOCOL })
    this.tellHere(device, true)
    this.log.info({ device }, 'a device is here')
    // Looked at now: its first reading may well come before the answer, and knows nothing of an earlier zero.
    const isUnknown = !this.zeros.has(device)
    this.note(line, name, isUnknown).catch((error: unknown) =>
      // It says its name again when it next comes; what it reads is told all the same.
      this.log.warn({ err: error, device }, 'a device could not be noted'),
    )
  }

  private async note(line: Line, name: string, isUnknown: boolean): Promise<void> {
    const { device, keyId } = line
    const { db } = this.workshop
    // Whoever gave it a key has looked.
    if (
      (await renameDevice(db, device, name)) ||
      (keyId !== undefined && (await meetDevice(db, device, name)))
    )
      this.known.add(device)
    else {
      this.known.delete(device)
      // Gone again while it was looked up, it is nobody's.
      if (this.lines.has(line)) this.strangers.set(device, name)
      return
    }
    if (isUnknown) this.recall(line, await lastAtNothing(db, device, this.nowMs()))
  }

  /** What another process knew of a scale's zero, where it still stands. */
  private recall(line: Line, atMs: number | null): void {
    const known = this.zeros.get(line.device) ?? NO_ZERO
    const lastMass = this.lines.get(line)?.lastMass
    // Whatever was heard or asked meanwhile counts; before its first mass it is not said whether it is tared.
    if (known.heardMs !== null || known.atMs !== null || (lastMass && !lastMass.tared)) return
    this.zeros.set(line.device, { ...known, atMs })
  }

  leave(line: Line): void {
    if (!this.lines.delete(line)) return
    this.lastHereMs = this.nowMs()
    this.strangers.delete(line.device)
    this.tellHere(line.device, false)
  }

  hear(line: Line, said: Exclude<DeviceMessage, { type: 'hello' }>): void {
    const heard = this.lines.get(line)
    if (!heard) return
    const { device } = line
    const atMs = this.nowMs()
    if (atMs - heard.toldHereMs >= DEVICE_BEAT_MS / 2) {
      heard.toldHereMs = atMs
      this.tellHere(device, true)
    }
    switch (said.type) {
      case 'mass': {
        const before = this.zeros.get(device) ?? NO_ZERO
        const kept = heard.lastMass === undefined ? zeroAfterSilence(before, said.tared) : before
        this.zeros.set(device, watchZero(kept, said, atMs))
        heard.lastMass = said
        heard.lastMassMs = atMs
        this.tellMass(device, said, atMs)
        if (said.massG !== null) this.keep(device, 'mass', atMs, said.massG, said.stable)
        return
      }
      case 'temperature': {
        const channel = `t${said.channel}` as const
        const { tempC } = said
        this.waiting.set(`${device} ${channel}`, { kind: 'temperature', device, atMs, channel, tempC })
        if (tempC !== null) this.keep(device, channel, atMs, tempC, true)
        return
      }
      case 'button': {
        const id = randomUUID()
        const presses = [...this.waiting.values()].filter((m) => m.kind === 'button').length
        if (presses < MOST_PRESSES)
          this.waiting.set(id, { kind: 'button', device, atMs, button: said.button, id })
        return
      }
      case 'beat':
        return
    }
  }

  /** A line of it that is not heard: it says more than is listened to. */
  drop({ device }: Line): void {
    this.dropped.set(device, (this.dropped.get(device) ?? 0) + 1)
  }

  /** Somebody without a key that fits was at the door: said to whoever keeps the workshop. */
  refuse(refusal: Omit<Refusal, 'atMs'>): void {
    const key = `${refusal.address} ${refusal.device} ${refusal.why}`
    const atMs = this.nowMs()
    for (const [known, toldMs] of this.refusals)
      if (atMs - toldMs >= TELL_AGAIN_MS) this.refusals.delete(known)
    if (this.refusals.has(key) || this.refusals.size >= MOST_REFUSALS) return
    this.refusals.set(key, atMs)
    this.waiting.set(`refused ${key}`, { kind: 'refused', ...refusal, atMs })
  }

  private tellMass(device: string, { massG, stable, overload }: MassSaid, atMs: number): void {
    const zeroedAtMs = this.zeros.get(device)?.atMs ?? null
    this.waiting.set(`${device} mass`, { kind: 'mass', device, atMs, massG, stable, overload, zeroedAtMs })
  }

  /** Scales that were asked to zero themselves, and have said nothing since. */
  private settleZeros(): void {
    for (const [{ device }, { lastMass, lastMassMs }] of this.lines) {
      const before = this.zeros.get(device)
      if (!before || !lastMass) continue
      const after = zeroStanding(before, this.nowMs())
      if (after === before) continue
      this.zeros.set(device, after)
      this.tellMass(device, lastMass, lastMassMs)
    }
  }

  private settleDropped(): void {
    const atMs = this.nowMs()
    if (this.dropped.size === 0 || atMs - this.toldDroppedMs < TELL_AGAIN_MS) return
    this.toldDroppedMs = atMs
    this.log.warn({ ...Object.fromEntries(this.dropped) }, 'devices say more than is heard')
    for (const [device, lines] of this.dropped)
      this.waiting.set(`${device} dropped`, { kind: 'dropped', device, atMs, lines })
    this.dropped.clear()
  }

  private tellHere(device: string, here: boolean): void {
    // After what it has said so far.
    this.waiting.delete(`${device} here`)
    this.waiting.set(`${device} here`, { kind: 'here', device, atMs: this.nowMs(), here })
  }

  private keep(device: string, channel: DeviceChannel, atMs: number, value: number, stable: boolean): void {
    const reading = { device, channel, atMs, value, stable }
    if (this.thinning.take(reading)) this.toKeep.push(reading)
  }

  /** One turn at a time; where the database is away, what has grown old meanwhile is not worth telling. */
  tell(): void {
    this.settleZeros()
    this.settleDropped()
    if (this.telling || (this.waiting.size === 0 && this.toKeep.length === 0)) return
    const [said, kept] = [[...this.waiting.values()], this.toKeep]
    this.waiting.clear()
    this.toKeep = []
    this.telling = (async () => {
      const { id, db } = this.workshop
      if (said.length > 0) await tellLive(db, id, said)
      await keepReadings(db, kept)
      this.failing = false
    })()
      .catch((error: unknown) => {
        if (!this.failing) this.log.warn({ err: error }, 'readings cannot be told; trying again')
        this.failing = true
        // A press is a decision, not a reading: it is told late rather than never.
        for (const message of said)
          if (message.kind === 'button' && !this.waiting.has(message.id))
            this.waiting.set(message.id, message)
        this.toKeep = [...kept, ...this.toKeep].slice(-1000)
      })
      .finally(() => (this.telling = undefined))
  }
}
