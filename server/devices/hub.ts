import { once } from 'node:events'
import { createServer, type Server, type Socket } from 'node:net'
import { LRUCache } from 'lru-cache'
import { DEVICE_SILENT_MS } from '../../shared/changes'
import { LineCutter, readDeviceLine, type DeviceCommand, type DeviceMessage } from '../../shared/deviceLine'
import type { RefusedWhy, TareAsk } from '../../shared/devices'
import type { Workshop } from '../utils/database'
import { Allowance } from './allowance'
import { BenchDevices, type Line, type Log } from './bench'

/** Readings of one channel within this are one. */
const TELL_MS = 150
/** Of one workshop, and of all. */
const MOST_DEVICES = 64
const MOST_LINES = 2000
/** Lines of which nobody knows yet who is on them: the oldest gives way. */
const MOST_NAMELESS = 64
/** A line that has said nothing of use by then is nobody's. */
const HELLO_WITHIN_MS = 5000
/** Lines of one device: a fast scale says ten a second. */
const LINES = { atOnce: 200, perS: 60 }
/** Hellos of one line. */
const MOST_HELLOS = 5
/** Hellos of all together, of those who are known and of those nobody knows: a workshop that comes back at once, no flood. */
const RETURNS = { atOnce: MOST_DEVICES, perS: 20 }
const HELLOS = { atOnce: MOST_DEVICES, perS: 5 }
/** Hellos of one address of the network: all devices of a workshop may stand behind one. */
const HELLOS_OF_ONE = { atOnce: MOST_DEVICES, perS: 2 }
const MOST_ADDRESSES = 500
/** What a scale that says no name is called. */
const PLAIN_SCALE = 'plain-scale'
/** What was turned away is said so often. */
const TELL_DROPPED_MS = 10_000

/** Whose a device is that says a key, or why it is nobody's; `of` is the workshop that the key speaks of. */
export type Admission =
  | { keyId: string; workshop: Workshop }
  | { refused: Exclude<RefusedWhy, 'in_use'>; of: Workshop | undefined }

/** Who lets devices in. */
export interface Porter {
  /** At the machine itself: whoever stands there may. */
  home: () => Promise<Workshop>
  /** From the network: by a key alone. */
  byKey: (key: string | undefined, device: string) => Promise<Admission>
}

interface Caller {
  socket: Socket
  /** Undefined at the machine itself. */
  address: string | undefined
  heard: Allowance
  hellos: number
  queue: string[]
  /** Whose line it is is being asked. */
  isAsking: boolean
  on: { bench: BenchDevices; line: Line } | undefined
}
type Hello = Extract<DeviceMessage, { type: 'hello' }>

/**
 * Where devices come in: lines over TCP (docs/devices.md), at the machine itself and, where that is switched on, from the
 * network, there by a key alone. Each workshop hears its own (`BenchDevices`).
 */
export class DeviceHub {
  private readonly servers: Server[] = []
  private readonly callers = new Set<Caller>()
  private readonly benches = new Map<string, BenchDevices>()
  private home: BenchDevices | undefined
  private readonly hellos = new Allowance(HELLOS.atOnce, HELLOS.perS)
  private readonly returns = new Allowance(RETURNS.atOnce, RETURNS.perS)
  private readonly byAddress = new LRUCache<string, Allowance>({ max: MOST_ADDRESSES })
  private readonly dropped = { hellos: 0, sockets: 0 }
  private toldDroppedMs = 0
  private timer: NodeJS.Timeout | undefined

  constructor(
    private readonly porter: Porter,
    private readonly log: Log,
    private readonly nowMs: () => number,
  ) {}

  /**
   * Listens at the machine itself, or with `host` at that address of the network.
   * @throws where the port is taken.
   */
  async listen(port: number, host?: string): Promise<number> {
    const server = createServer((socket) =>
      this.welcome(socket, host === undefined ? undefined : (socket.remoteAddress ?? '')),
    )
    server.listen(port, host ?? '127.0.0.1')
    await once(server, 'listening')
    server.on('error', (error) => this.log.warn({ err: error }, 'the devices’ door has a fault'))
    this.servers.push(server)
    this.timer ??= setInterval(() => this.tell(), TELL_MS)
    return (server.address() as { port: number }).port
  }

  async close(): Promise<void> {
    clearInterval(this.timer)
    for (const { socket } of this.callers) socket.destroy()
    for (const server of this.servers) server.close()
    await Promise.all([...this.benches.values()].map((b) => b.settled()))
  }

  tare(workshopId: string, device: string, ask: TareAsk): void {
    this.benches.get(workshopId)?.tare(device, ask)
  }
  async introduce(workshopId: string): Promise<void> {
    await this.benches.get(workshopId)?.introduce()
  }
  endKey(workshopId: string, keyId: string): void {
    this.benches.get(workshopId)?.endKey(keyId)
  }

  private tell(): void {
    for (const [id, bench] of this.benches) {
      bench.tell()
      if (bench.isForgotten) this.benches.delete(id)
    }
  }

  private benchOf(workshop: Workshop): BenchDevices {
    let bench = this.benches.get(workshop.id)
    if (!bench) this.benches.set(workshop.id, (bench = new BenchDevices(workshop, this.log, this.nowMs)))
    return bench
  }

  private drop(what: keyof DeviceHub['dropped']): void {
    this.dropped[what] += 1
    const nowMs = this.nowMs()
    if (nowMs - this.toldDroppedMs < TELL_DROPPED_MS) return
    this.toldDroppedMs = nowMs
    this.log.warn({ ...this.dropped }, 'more devices are at the door than are let in')
    Object.assign(this.dropped, { hellos: 0, sockets: 0 })
  }

  /** A line more, where need be in the place of the oldest that never said who it is. */
  private makeRoom(): boolean {
    if (this.callers.size >= MOST_LINES + MOST_NAMELESS) return false
    const nameless = [...this.callers].filter((c) => !c.on)
    const [oldest] = nameless
    if (nameless.length < MOST_NAMELESS) return true
    oldest!.socket.destroy()
    this.callers.delete(oldest!)
    this.drop('sockets')
    return true
  }

  private welcome(socket: Socket, address: string | undefined): void {
    socket.on('error', () => socket.destroy())
    if (!this.makeRoom()) {
      this.drop('sockets')
      return bye(socket, 'too many devices')
    }
    const caller: Caller = {
      socket,
      address,
      heard: new Allowance(LINES.atOnce, LINES.perS),
      hellos: 0,
      queue: [],
      isAsking: false,
      on: undefined,
    }
    this.callers.add(caller)
    const nobody = setTimeout(() => !caller.on && socket.destroy(), HELLO_WITHIN_MS)
    const cutter = new LineCutter()
    socket.setEncoding('utf8')
    socket.setTimeout(DEVICE_SILENT_MS, () => socket.destroy())
    socket.on('data', (text: string) => {
      const { lines, tooLong } = cutter.cut(text)
      // A page in a browser can send lines, too, but never begin with one of ours.
      if (tooLong > 0 && !caller.on) return void socket.destroy()
      if (tooLong > 0) say(socket, { type: 'error', message: 'a line was too long' })
      caller.queue.push(...lines)
      this.attend(caller)
    })
    socket.on('close', () => {
      clearTimeout(nobody)
      this.callers.delete(caller)
      this.leave(caller)
    })
  }

  private leave(caller: Caller): void {
    caller.on?.bench.leave(caller.on.line)
    caller.on = undefined
  }

  /** One line after the other; while it is asked whose it is, it waits. */
  private attend(caller: Caller): void {
    const { socket, queue } = caller
    while (queue.length > 0 && !caller.isAsking) {
      if (socket.destroyed || socket.writableEnded) return
      this.attendTo(caller, readDeviceLine(queue.shift()!))
    }
  }

  private attendTo(caller: Caller, said: DeviceMessage | undefined): void {
    const { socket, address, on } = caller
    const isPlain = address === undefined && said?.type === 'mass'
    if (!on && said?.type !== 'hello' && !isPlain) return void socket.destroy()
    if (!caller.heard.take(this.nowMs())) {
      if (on) on.bench.drop(on.line)
      return
    }
    if (said?.type === 'hello') return this.ask(caller, said)
    // Plain text has no way to say its name: a scale on the line without one.
    if (!on) return this.ask(caller, { type: 'hello', device: PLAIN_SCALE, name: 'Scale' }, said)
    if (said) on.bench.hear(on.line, said)
    else say(socket, { type: 'error', message: 'not understood' })
  }

  /** Who is known comes in whatever the crowd at the door; one line says its name a few times, not for ever. */
  private mayAsk(caller: Caller, { device }: Hello): boolean {
    caller.hellos += 1
    if (caller.hellos > MOST_HELLOS) return false
    const { address } = caller
    if (address === undefined)
      return (this.home?.knows(device) ? this.returns : this.hellos).take(this.nowMs())
    let allowance = this.byAddress.get(address)
    if (!allowance)
      this.byAddress.set(address, (allowance = new Allowance(HELLOS_OF_ONE.atOnce, HELLOS_OF_ONE.perS)))
    return allowance.take(this.nowMs())
  }

  private ask(caller: Caller, hello: Hello, then?: DeviceMessage): void {
    const { socket } = caller
    if (!this.mayAsk(caller, hello)) {
      this.drop('hellos')
      return bye(socket, 'too many hellos: come again later')
    }
    caller.isAsking = true
    socket.pause()
    this.admit(caller, hello)
      .then(() => then && then.type !== 'hello' && caller.on?.bench.hear(caller.on.line, then))
      .catch((error: unknown) => {
        this.log.warn({ err: error, device: hello.device }, 'a device could not be let in')
        bye(socket, 'come again later')
      })
      .finally(() => {
        caller.isAsking = false
        socket.resume()
        this.attend(caller)
      })
  }

  private async admit(caller: Caller, hello: Hello): Promise<void> {
    const { socket, address } = caller
    const { device, name } = hello
    const admitted = address === undefined ? await this.atHome() : await this.porter.byKey(hello.key, device)
    if (socket.destroyed) return
    const refuse = async (why: RefusedWhy, of: Workshop | undefined, message: string) => {
      bye(socket, message)
      const told = of ?? (await this.porter.home())
      this.benchOf(told).refuse({ device, name, address: address ?? '', why })
    }
    if ('refused' in admitted) return refuse(admitted.refused, admitted.of, REFUSED[admitted.refused])
    const { workshop, keyId } = admitted
    const bench = this.benchOf(workshop)
    // On the line that it is on already it may say its name again.
    const isHere = caller.on?.bench === bench && caller.on.line.device === device
    if (!isHere && bench.isHeldBy(device, keyId)) return refuse('in_use', workshop, REFUSED.in_use)
    this.leave(caller)
    if (bench.size >= MOST_DEVICES) {
      this.drop('sockets')
      return bye(socket, 'too many devices')
    }
    const line: Line = {
      device,
      keyId,
      write: (command) => say(socket, command),
      end: () => socket.destroy(),
    }
    caller.on = { bench, line }
    bench.meet(line, name)
  }

  private async atHome(): Promise<{ keyId: undefined; workshop: Workshop }> {
    const workshop = await this.porter.home()
    this.home = this.benchOf(workshop)
    return { keyId: undefined, workshop }
  }
}

/** What a device is told that is not let in. */
const REFUSED: Record<RefusedWhy, string> = {
  no_key: 'a key is wanted: docs/devices.md',
  wrong_key: 'this key lets nobody in',
  other_device: 'this key is another device’s',
  in_use: 'another device is here under this name',
}

const say = (socket: Socket, command: DeviceCommand) => void socket.write(`${JSON.stringify(command)}\n`)

function bye(socket: Socket, message: string): void {
  if (!socket.destroyed) say(socket, { type: 'error', message })
  socket.destroySoon()
}
