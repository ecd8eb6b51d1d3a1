import { connect, type Socket } from 'node:net'
import { backOffMs } from '../shared/backOff'
import { DEVICE_PROTOCOL, LineCutter } from '../shared/deviceLine'

const RECONNECT = { firstMs: 200, longestMs: 5000 }

/** A device's end of the line: says hello, comes again where it is cut, hands on what it is told. */
export class DeviceLine {
  private socket: Socket | undefined
  private failures = 0
  private plugged = true
  private again: NodeJS.Timeout | undefined

  constructor(
    private readonly port: number,
    private readonly device: string,
    private readonly name: string,
    private readonly onCommand: (type: string) => void = () => {},
  ) {
    this.open()
  }

  private open(): void {
    const socket = connect(this.port, '127.0.0.1')
    this.socket = socket
    const cutter = new LineCutter()
    socket.setEncoding('utf8')
    socket.on('connect', () => {
      this.say({ type: 'hello', protocol: DEVICE_PROTOCOL, device: this.device, name: this.name })
    })
    socket.on('data', (text: string) => {
      for (const line of cutter.cut(text).lines) {
        const { type } = JSON.parse(line) as { type: string }
        // Taken in; one that is sent away comes again later and later.
        if (type === 'welcome') this.failures = 0
        this.onCommand(type)
      }
    })
    socket.on('error', () => {})
    socket.on('close', () => {
      this.socket = undefined
      if (!this.plugged) return
      this.failures += 1
      this.again = setTimeout(() => this.open(), backOffMs(this.failures, RECONNECT))
    })
  }

  say(message: object): void {
    if (this.socket?.readyState === 'open') this.socket.write(`${JSON.stringify(message)}\n`)
  }

  /** Pulls the plug, as a foot does. */
  pull(): void {
    this.plugged = false
    clearTimeout(this.again)
    this.socket?.destroy()
  }

  plugIn(): void {
    if (this.plugged) return
    this.plugged = true
    this.failures = 0
    this.open()
  }
}
