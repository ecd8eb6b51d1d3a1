import { computed, ref, shallowRef } from 'vue'
import { NO_ZERO, askedToZero, watchZero, type Zero } from '#core/mix'
import { LineCutter, readDeviceLine, type DeviceMessage } from '~~/shared/deviceLine'
import { useClock } from '~/stores/bench'
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
type MassSaid = Extract<DeviceMessage, { type: 'mass' }>
let last: MassSaid | undefined
/** What it showed where it was zeroed here; what it says counts from there. */
let zeroG = 0
let zero: Zero = NO_ZERO

async function read(from: SerialPort, nowMs: () => number): Promise<void> {
  const reader = from.readable!.getReader()
  const decoder = new TextDecoder()
  const cutter = new LineCutter()
  for (;;) {
    const { value, done } = await reader.read()
    if (done) return
    for (const line of cutter.cut(decoder.decode(value, { stream: true })).lines) {
      const said = readDeviceLine(line)
      if (said?.type === 'mass') {
        last = said
        says.value = counted(said, nowMs())
      }
    }
  }
}

/** Zeroed here as soon as it stands still, whatever it can do by itself. */
function counted(said: MassSaid, atMs: number): ScaleSays {
  const { stable, overload } = said
  if (zero.heardMs !== null && stable && said.massG !== null) zeroG = said.massG
  const massG = said.massG === null ? null : said.massG - zeroG
  zero = watchZero(zero, { massG, stable, tared: zeroG === 0 ? said.tared : null }, atMs)
  return { massG, stable, overload, zeroedAtMs: zero.atMs, atMs }
}

/**
 * A scale on a serial or USB line that sends what it shows. One for the whole device: it stays connected from step to
 * step. `says` counts from where it was last zeroed here.
 */
export function useScale() {
  const clock = useClock()
  async function connect() {
    if (!serial) return
    failure.value = ''
    zeroG = 0
    zero = NO_ZERO
    try {
      const port = await serial.requestPort()
      await port.open({ baudRate: BAUD_RATE })
      connected.value = true
      await read(port, () => clock.nowMs())
      failure.value = 'The scale has stopped sending. Type what it shows.'
    } catch (error) {
      // Closing the browser's own chooser is an answer, not a fault.
      if (!(error instanceof DOMException && error.name === 'NotFoundError'))
        failure.value = 'The scale does not answer. Type what it shows.'
    }
    connected.value = false
    says.value = undefined
    last = undefined
  }
  return {
    can: serial !== undefined,
    connected,
    says: computed(() => says.value),
    failure,
    connect,
    zero() {
      zero = askedToZero(clock.nowMs(), clock.nowMs())
      // One that sends only what has changed says nothing more while the bowl stands still.
      if (last) says.value = counted(last, clock.nowMs())
    },
  }
}
