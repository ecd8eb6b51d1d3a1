import { computed, ref, shallowRef } from 'vue'
import { LineCutter, readDeviceLine } from '~~/shared/deviceLine'
import { workshopClock } from '~/stores/clock'
import type { ScaleSays } from './weighStep'

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

const says = shallowRef<ScaleSays>()
const connected = ref(false)
const failure = ref('')
const zeroG = ref(0)
const port = shallowRef<SerialPort>()

async function read(from: SerialPort): Promise<void> {
  const reader = from.readable!.getReader()
  const decoder = new TextDecoder()
  const cutter = new LineCutter()
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    for (const line of cutter.cut(decoder.decode(value, { stream: true })).lines) {
      const said = readDeviceLine(line)
      if (said?.type === 'mass') {
        const { massG, stable, tared, overload } = said
        says.value = { massG, stable, tared, overload, atMs: workshopClock.nowMs() }
      }
    }
  }
}

/**
 * A scale on a serial or USB line that sends what it shows. One for the whole device: it stays connected from step to
 * step. `says` counts from where it was last zeroed here.
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
    says.value = undefined
  }
  function zero() {
    zeroG.value = says.value?.massG ?? 0
  }
  const net = computed(
    () => says.value && { ...says.value, massG: says.value.massG && says.value.massG - zeroG.value },
  )
  return { can: serial !== undefined, connected, says: net, failure, connect, zero }
}
