import { once } from 'node:events'
import { connect, type Socket } from 'node:net'
import { afterEach } from 'vitest'
import { until } from './until'

export interface Plugged {
  say: (...messages: (object | string)[]) => void
  answers: { type: string; message?: string }[]
  answered: (type: string, times?: number) => Promise<unknown>
  ended: Promise<unknown>
  socket: Socket
}

/** Lines to device ports, unplugged after each test. Call it at the file's top. */
export function withPlugs() {
  const closing: (() => void)[] = []
  afterEach(() => closing.splice(0).forEach((close) => close()))

  /** That the other end is killed with something unread is part of these tests, and no error of theirs. */
  async function dial(port: number, host = '127.0.0.1'): Promise<Socket> {
    const socket = connect(port, host)
    closing.push(() => socket.destroy())
    await once(socket, 'connect')
    socket.on('error', () => {})
    return socket
  }
  async function plug(port: number, host?: string): Promise<Plugged> {
    const socket = await dial(port, host)
    const answers: Plugged['answers'] = []
    socket.setEncoding('utf8')
    socket.on('data', (text: string) => {
      for (const line of text.split('\n').filter(Boolean)) answers.push(JSON.parse(line) as never)
    })
    return {
      say: (...messages) => {
        for (const m of messages) socket.write(`${typeof m === 'string' ? m : JSON.stringify(m)}\n`)
      },
      answers,
      answered: (type, times = 1) =>
        until(`an answer of type ${type}`, () => answers.filter((a) => a.type === type).length >= times),
      ended: new Promise((resolve) => socket.once('close', resolve)),
      socket,
    }
  }
  return { closing, dial, plug }
}

export const helloOf = (device: string, key?: string) => ({
  type: 'hello',
  protocol: 1,
  device,
  name: `Called ${device}`,
  ...(key === undefined ? {} : { key }),
})
