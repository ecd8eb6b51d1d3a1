import { setTimeout as after } from 'node:timers/promises'
import { JSONParser } from '@streamparser/json'
import { DomainError } from './domainError'

/** Deeper is nothing of ours. */
const MOST_DEPTH = 64
/** Of one thing in a list: a card, a plan with all its steps. */
const MOST_ITEM_BYTES = 4 * 1024 * 1024
const MOST_ITEM_VALUES = 200_000
/** Read in steps of so much, for so long at a stretch; then whoever is at the bench has a moment. */
const SLICE_BYTES = 1024
const STRETCH_MS = 1
const PAUSE_MS = 1

const OPEN = new Set([0x7b, 0x5b])
const CLOSE = new Set([0x7d, 0x5d])
const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c]

/** Looks at a text before it is parsed: what would make the parser hold or do too much never reaches it. */
class Bounds {
  private depth = 0
  private inString = false
  private escaped = false
  private bytes = 0
  private values = 0

  constructor(private readonly mostItemBytes: number) {}

  /** @throws DomainError invalid_input for what is nested too deep, payload_too_large for one thing that is too large. */
  look(slice: Uint8Array): void {
    for (const byte of slice) {
      if (this.inString) {
        if (this.escaped) this.escaped = false
        else if (byte === BACKSLASH) this.escaped = true
        else if (byte === QUOTE) this.inString = false
      } else if (byte === QUOTE) this.inString = true
      else if (byte === COMMA) this.values += 1
      else if (OPEN.has(byte)) {
        this.values += 1
        this.depth += 1
        if (this.depth > MOST_DEPTH)
          throw new DomainError('invalid_input', [{ path: 'file', message: 'is nested too deep' }])
      } else if (CLOSE.has(byte)) this.depth -= 1
    }
    this.bytes += slice.length
    if (this.bytes > this.mostItemBytes || this.values > MOST_ITEM_VALUES)
      throw new DomainError('payload_too_large')
  }

  /** Something was handed on, and is held no longer. */
  handedOn(): void {
    this.bytes = 0
    this.values = 0
  }
}

export interface JsonItem {
  /** Keys and numbers of the list, from the outside in. */
  path: readonly (string | number)[]
  value: unknown
}

/**
 * What stands at these paths of a JSON text (`$.name`, `$.list.*`), in the order of the text, each as soon as it is whole:
 * the text may be far larger than what is held of it, and whatever is in it, others are served meanwhile.
 * @param mostItemBytes how large one of them may be, as text.
 * @throws DomainError invalid_json; invalid_input or payload_too_large for what no file of ours holds.
 */
export async function* jsonItems(
  source: AsyncIterable<Uint8Array>,
  paths: readonly string[],
  mostItemBytes = MOST_ITEM_BYTES,
): AsyncGenerator<JsonItem> {
  const parser = new JSONParser({ paths: [...paths], keepStack: false })
  const bounds = new Bounds(mostItemBytes)
  const whole: JsonItem[] = []
  let ended = false
  parser.onValue = ({ value, key, stack }) => {
    const outer = stack.slice(1).map((s) => s.key!)
    whole.push({ path: key === undefined ? outer : [...outer, key], value })
    bounds.handedOn()
  }
  parser.onEnd = () => (ended = true)
  let sinceMs = performance.now()
  const rest = async () => {
    if (performance.now() - sinceMs < STRETCH_MS) return
    await after(PAUSE_MS)
    sinceMs = performance.now()
  }
  for await (const chunk of source)
    for (let at = 0; at < chunk.length; at += SLICE_BYTES) {
      const slice = chunk.subarray(at, at + SLICE_BYTES)
      bounds.look(slice)
      try {
        parser.write(slice)
      } catch {
        throw new DomainError('invalid_json')
      }
      await rest()
      // What whoever asks makes of it takes its time as well.
      for (const item of whole.splice(0)) {
        yield item
        await rest()
      }
    }
  if (!ended) throw new DomainError('invalid_json')
}
