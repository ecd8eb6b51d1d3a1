import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { createServer, type Server, type Socket } from 'node:net'
import { DEVICE_BEAT_MS, DEVICE_SILENT_MS } from '../../shared/changes'
import {
  DEVICE_PROTOCOL,
  LineCutter,
  readDeviceLine,
  type DeviceCommand,
  type DeviceMessage,
} from '../../shared/deviceLine'
import { NO_ZERO, askedToZero, watchZero, zeroAfterSilence, zeroStanding, type Zero } from '../../core/mix'
import type { DeviceChannel } from '../../core/pour'
import type { LiveMessage, TareAsk } from '../../shared/devices'
import {
  keepReadings,
  lastAtNothing,
  meetDevice,
  renameDevice,
  tellLive,
  type ReadingToKeep,
} from '../services/devices'
import type { Workshop } from '../utils/database'
import { Allowance } from './allowance'
import { Thinning } from './thinning'

/** Readings of one channel within this are one. */
const TELL_MS = 150
/** A scale that was asked to zero itself has heard of it by then: what it says sooner may be of the zero before. */
const HEARD_WITHIN_MS = 400
const MOST_DEVICES = 64
/** A line that has said nothing of use by then is nobody's. */
const HELLO_WITHIN_MS = 5000
/** Lines of one device: a fast scale says ten a second. */
const LINES = { atOnce: 200, perS: 60 }
/** Hellos of one line. */
const MOST_HELLOS = 5
/** Hellos of all together, of those who are known and of those nobody knows: a workshop that comes back at once, no flood. */
const RETURNS = { atOnce: MOST_DEVICES, perS: 20 }
const HELLOS = { atOnce: MOST_DEVICES, perS: 5 }
/** What a scale that says no name is called. */
const PLAIN_SCALE = 'plain-scale'
/** What was turned away is said so often. */
const TELL_DROPPED_MS = 10_000
/** A person's button; more is a loose contact. */
const MOST_PRESSES = 20
/** Windows that hear one press all answer it within moments. */
const REMEMBERED_ASKS = 20

interface Log {
  info(details: object, message: string): void
  warn(details: object, message: string): void
}

type MassSaid = Extract<DeviceMessage, { type: 'mass' }>

interface Session {
  socket: Socket
  lines: Allowance
  hellos: number
  device: string | undefined
  toldHereMs: number
  /** Undefined before the first. */
  lastMass: MassSaid | undefined
  lastMassMs: number
  /** The requests to zero that it was told of. */
  asks: string[]
}

/**
 * Where devices come in: lines over TCP (docs/devices.md). What they say is told to all processes of the workshop several
 * times a second, the latest of each channel; what is worth keeping is kept. Holds nothing that is lost with it: a device
 * that loses its line comes again.
 */
export class DeviceHub {
  private server: Server | undefined
  private readonly sessions = new Set<Session>()
  private readonly waiting = new Map<string, LiveMessage>()
  private toKeep: ReadingToKeep[] = []
  private readonly thinning = new Thinning()
  /** Of each scale; outlives its line. */
  private readonly zeros = new Map<string, Zero>()
  private readonly hellos = new Allowance(HELLOS.atOnce, HELLOS.perS)
  private readonly returns = new Allowance(RETURNS.atOnce, RETURNS.perS)
  /** Names that the workshop knows, as far as they have been here. */
  private readonly known = new Set<string>()
  /** Names that the workshop does not know, of lines that are here: kept for whoever looks. */
  private readonly strangers = new Map<string, string>()
  private readonly dropped = { lines: 0, hellos: 0, sockets: 0 }
  private toldDroppedMs = 0
  private telling: Promise<void> | undefined
  private timer: NodeJS.Timeout | undefined
  private failing = false

  constructor(
    private readonly workshop: () => Promise<Workshop>,
    private readonly log: Log,
    private readonly nowMs: () => number,
  ) {}

  /** Listens on the loopback. @throws where the port is taken. */
  async listen(port: number): Promise<number> {
    const server = createServer((socket) => this.welcome(socket))
    server.listen(port, '127.0.0.1')
    await once(server, 'listening')
    server.on('error', (error) => this.log.warn({ err: error }, 'the devices’ door has a fault'))
    this.server = server
    this.timer = setInterval(() => this.tell(), TELL_MS)
    return (server.address() as { port: number }).port
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    for (const { socket } of this.sessions) socket.destroy()
    this.server?.close()
    await this.telling
  }

  /**
   * Tells a scale that is connected here to zero itself. Again, or late, when it has come to nothing meanwhile (the same
   * bowl back on a scale that was zeroed with it), it would lose what has gone in since: such a request is done already.
   */
  tare(device: string, ask: TareAsk): void {
    const session = [...this.sessions].find((s) => s.device === device)
    if (!session || session.asks.includes(ask.id)) return
    session.asks = [...session.asks, ask.id].slice(-REMEMBERED_ASKS)
    if ((this.zeros.get(device)?.atMs ?? 0) > (ask.zeroedAtMs ?? 0)) return
    const nowMs = this.nowMs()
    this.zeros.set(device, askedToZero(nowMs, nowMs + HEARD_WITHIN_MS, session.lastMass))
    const command: DeviceCommand = { type: 'tare' }
    session.socket.write(`${JSON.stringify(command)}\n`)
  }

  /** Somebody looks at what is there: devices that nobody knew are noted from here on. */
  async introduce(): Promise<void> {
    if (this.strangers.size === 0) return
    const met = [...this.strangers]
    this.strangers.clear()
    const { db } = await this.workshop()
    for (const [device, name] of met)
      if (await meetDevice(db, device, name)) this.known.add(device)
      else this.log.warn({ device }, 'a device is not noted: the workshop knows too many')
  }

  /** A line more, where need be in the place of one that never said who it is. */
  private hasRoom(): boolean {
    if (this.sessions.size < MOST_DEVICES) return true
    const [nameless] = [...this.sessions].filter((s) => s.device === undefined)
    nameless?.socket.destroy()
    if (nameless) this.sessions.delete(nameless)
    return nameless !== undefined
  }

  /** Who is known comes in whatever the crowd at the door; one line says its name a few times, not for ever. */
  private mayMeet(session: Session, device: string): boolean {
    session.hellos += 1
    if (session.hellos > MOST_HELLOS) return false
    return (this.known.has(device) ? this.returns : this.hellos).take(this.nowMs())
  }

  private drop(what: keyof DeviceHub['dropped']): void {
    this.dropped[what] += 1
    const nowMs = this.nowMs()
    if (nowMs - this.toldDroppedMs < TELL_DROPPED_MS) return
    this.toldDroppedMs = nowMs
    this.log.warn({ ...this.dropped }, 'devices say more than is heard')
    Object.assign(this.dropped, { lines: 0, hellos: 0, sockets: 0 })
  }

  private welcome(socket: Socket): void {
    const say = (command: DeviceCommand) => socket.write(`${JSON.stringify(command)}\n`)
    const bye = (message: string) => {
      socket.write(`${JSON.stringify({ type: 'error', message })}\n`)
      socket.destroySoon()
    }
    socket.on('error', () => socket.destroy())
    if (!this.hasRoom()) {
      this.drop('sockets')
      bye('too many devices')
      return
    }
    const session: Session = {
      socket,
      lines: new Allowance(LINES.atOnce, LINES.perS),
      hellos: 0,
      device: undefined,
      toldHereMs: 0,
      lastMass: undefined,
      lastMassMs: 0,
      asks: [],
    }
    this.sessions.add(session)
    const nobody = setTimeout(() => session.device === undefined && socket.destroy(), HELLO_WITHIN_MS)
    const cutter = new LineCutter()
    socket.setEncoding('utf8')
    socket.setTimeout(DEVICE_SILENT_MS, () => socket.destroy())
    socket.on('data', (text: string) => {
      const { lines, tooLong } = cutter.cut(text)
      // A page in a browser can send lines, too, but never begin with one of ours.
      if (tooLong > 0 && session.device === undefined) return void socket.destroy()
      if (tooLong > 0) say({ type: 'error', message: 'a line was too long' })
      for (const line of lines) {
        if (socket.destroyed || socket.writableEnded) return
        const said = readDeviceLine(line)
        const isFirst = session.device === undefined
        if (isFirst && said?.type !== 'hello' && said?.type !== 'mass') return void socket.destroy()
        if (!session.lines.take(this.nowMs())) {
          this.drop('lines')
          continue
        }
        const name = said?.type === 'hello' ? said.device : isFirst ? PLAIN_SCALE : undefined
        if (name !== undefined && !this.mayMeet(session, name)) {
          this.drop('hellos')
          return void bye('too many hellos: come again later')
        }
        if (said) this.hear(session, said)
        else say({ type: 'error', message: 'not understood' })
      }
    })
    socket.on('close', () => {
      clearTimeout(nobody)
      if (session.device !== undefined) this.strangers.delete(session.device)
      this.sessions.delete(session)
      if (session.device !== undefined) this.tellHere(session.device, false)
    })
  }

  private hear(session: Session, said: DeviceMessage): void {
    if (said.type === 'hello') {
      this.meet(session, said.device, said.name)
      return
    }
    // Plain text has no way to say its name: a scale on the line without one.
    if (session.device === undefined) this.meet(session, PLAIN_SCALE, 'Scale')
    const device = session.device!
    const atMs = this.nowMs()
    if (atMs - session.toldHereMs >= DEVICE_BEAT_MS / 2) {
      session.toldHereMs = atMs
      this.tellHere(device, true)
    }
    switch (said.type) {
      case 'mass': {
        const before = this.zeros.get(device) ?? NO_ZERO
        const kept = session.lastMass === undefined ? zeroAfterSilence(before, said.tared) : before
        this.zeros.set(device, watchZero(kept, said, atMs))
        session.lastMass = said
        session.lastMassMs = atMs
        this.tellMass(device, said, atMs)
        if (said.massG !== null) this.keep(device, 'mass', atMs, said.massG, said.stable)
        return
      }
      case 'temperature': {
        const channel = `t${said.channel}` as const
        this.waiting.set(`${device} ${channel}`, {
          kind: 'temperature',
          device,
          atMs,
          channel,
          tempC: said.tempC,
        })
        if (said.tempC !== null) this.keep(device, channel, atMs, said.tempC, true)
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

  private meet(session: Session, device: string, name: string): void {
    // The one that came last is believed: a line that broke is noticed late on this side.
    for (const other of this.sessions)
      if (other !== session && other.device === device) {
        other.device = undefined
        other.socket.destroy()
      }
    session.device = device
    session.socket.write(`${JSON.stringify({ type: 'welcome', protocol: DEVICE_PROTOCOL })}\n`)
    this.tellHere(device, true)
    this.log.info({ device }, 'a device is here')
    // Looked at now: its first reading may well come before the answer, and knows nothing of an earlier zero.
    const isUnknown = !this.zeros.has(device)
    this.workshop()
      .then(async ({ db }) => {
        if (await renameDevice(db, device, name)) this.known.add(device)
        else {
          this.known.delete(device)
          // Gone again while it was looked up, it is nobody's.
          if (session.device === device && this.sessions.has(session)) this.strangers.set(device, name)
          return
        }
        if (isUnknown) this.recall(session, device, await lastAtNothing(db, device, this.nowMs()))
      })
      // It says its name again when it next comes; what it reads is told all the same.
      .catch((error: unknown) => this.log.warn({ err: error, device }, 'a device could not be noted'))
  }

  /** What another process knew of a scale's zero, where it still stands. */
  private recall(session: Session, device: string, atMs: number | null): void {
    const known = this.zeros.get(device) ?? NO_ZERO
    // Whatever was heard or asked meanwhile counts; before its first mass it is not said whether it is tared.
    if (known.heardMs !== null || known.atMs !== null || (session.lastMass && !session.lastMass.tared)) return
    this.zeros.set(device, { ...known, atMs })
  }

  private tellMass(device: string, { massG, stable, overload }: MassSaid, atMs: number): void {
    const zeroedAtMs = this.zeros.get(device)?.atMs ?? null
    this.waiting.set(`${device} mass`, {
      kind: 'mass',
      device,
      atMs,
      massG,
      stable,
      overload,
      zeroedAtMs,
    })
  }

  /** Scales that were asked to zero themselves, and have said nothing since. */
  private settleZeros(): void {
    for (const { device, lastMass, lastMassMs } of this.sessions) {
      const before = device === undefined ? undefined : this.zeros.get(device)
      if (device === undefined || !before || !lastMass) continue
      const after = zeroStanding(before, this.nowMs())
      if (after === before) continue
      this.zeros.set(device, after)
      this.tellMass(device, lastMass, lastMassMs)
    }
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
  private tell(): void {
    this.settleZeros()
    if (this.telling || (this.waiting.size === 0 && this.toKeep.length === 0)) return
    const [said, kept] = [[...this.waiting.values()], this.toKeep]
    this.waiting.clear()
    this.toKeep = []
    this.telling = (async () => {
      const { id, db } = await this.workshop()
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
