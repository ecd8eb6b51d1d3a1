import { ref, shallowRef } from 'vue'
import { parseScaleLine } from '#core/formats'

/** What this needs of the browser's serial ports; the DOM's own types do not have them yet. */
interface SerialPort {
  open(options: { baudRate: number }): Promise<void>
  close(): Promise<void>
  readable: ReadableStream<Uint8Array> | null
}
interface Serial {
  requestPort(): Promise<SerialPort>
}

const serial = (navigator as Navigator & { serial?: Serial }).serial

/** The rate nearly every bench scale leaves the works with. */
const BAUD_RATE = 9600

const massG = ref<number>()
const connected = ref(false)
const failure = ref('')
const zeroG = ref(0)
const port = shallowRef<SerialPort>()

async function read(from: SerialPort): Promise<void> {
  const reader = from.readable!.getReader()
  const decoder = new TextDecoder()
  let text = ''
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    text += decoder.decode(value, { stream: true })
    const lines = text.split(/\r\n|\r|\n/)
    text = lines.pop()!.slice(-200)
    for (const line of lines) {
      const reading = parseScaleLine(line)
      if (reading) massG.value = reading.massG
    }
  }
}

/**
 * A scale on a serial or USB line that sends what it shows. One for the whole device: it stays connected from step to
 * step. `netG` is what lies on it since it was last zeroed here.
 */
export function useScale() {
  async function connect() {
    if (!serial) return
    failure.value = ''
    try {
      port.value = await serial.requestPort()
      await port.value.open({ baudRate: BAUD_RATE })
      connected.value = true
      await read(port.value)
      failure.value = 'The scale has stopped sending. Type what it shows.'
    } catch (error) {
      // Closing the browser's own chooser is an answer, not a fault.
      if (!(error instanceof DOMException && error.name === 'NotFoundError'))
        failure.value = 'The scale does not answer. Type what it shows.'
    }
    connected.value = false
    massG.value = undefined
  }
  function zero() {
    zeroG.value = massG.value ?? 0
  }
  return { can: serial !== undefined, connected, massG, zeroG, failure, connect, zero }
}
