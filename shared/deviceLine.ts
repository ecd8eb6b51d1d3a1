import { z } from 'zod'
import { parseScaleLine } from '../core/formats'
import { GRAMS_PER } from '../core/units'

/** The line protocol of scales, thermometers and buttons: docs/devices.md. Both ends speak through this file. */

export const DEVICE_PROTOCOL = 1
/** Longer is no line of this protocol. */
export const MOST_LINE_BYTES = 1000

export const deviceIdSchema = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9._-]{0,63}$/)
/** A thermometer's sockets are numbered from 1. */
const channelSchema = z.int().min(1).max(16)

const MASS_UNITS = ['g', 'kg', 'lb', 'oz'] as const

const fromDeviceSchema = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('hello'),
    protocol: z.literal(DEVICE_PROTOCOL),
    device: deviceIdSchema,
    name: z.string().trim().min(1).max(60),
    /** From the network: what it was let in by. */
    key: z.string().max(100).optional(),
  }),
  z.object({
    type: z.literal('mass'),
    /** Null where there is none to be had: overloaded, or not settled since it was switched on. */
    value: z.number().min(-2e6).max(2e6).nullable(),
    unit: z.enum(MASS_UNITS).default('g'),
    stable: z.boolean(),
    /** Left out where it cannot say. */
    tare: z.boolean().optional(),
    overload: z.boolean().default(false),
  }),
  z.object({
    type: z.literal('temperature'),
    channel: channelSchema.default(1),
    /** Null: nothing is plugged in there, or it is broken. */
    tempC: z.number().min(-60).max(400).nullable(),
  }),
  z.object({ type: z.literal('button'), button: z.int().min(1).max(16).default(1) }),
  z.object({ type: z.literal('beat') }),
])

/** What a device says, in the units of the bench. */
export type DeviceMessage =
  | { type: 'hello'; device: string; name: string; key?: string | undefined }
  /** `tared`: what it shows counts from where it was zeroed with something on it; null where it does not say. */
  | { type: 'mass'; massG: number | null; stable: boolean; tared: boolean | null; overload: boolean }
  | { type: 'temperature'; channel: number; tempC: number | null }
  | { type: 'button'; button: number }
  | { type: 'beat' }

/** What a device is told. */
export type DeviceCommand =
  | { type: 'welcome'; protocol: number }
  | { type: 'tare' }
  | { type: 'error'; message: string }

/** What one line says; undefined where it is neither of the protocol nor a scale's plain text. */
export function readDeviceLine(line: string): DeviceMessage | undefined {
  const text = line.trim()
  if (text.length > MOST_LINE_BYTES) return undefined
  return text.startsWith('{') ? readJson(text) : readPlain(text)
}

function readJson(text: string): DeviceMessage | undefined {
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    return undefined
  }
  const parsed = fromDeviceSchema.safeParse(value)
  if (!parsed.success) return undefined
  const said = parsed.data
  if (said.type === 'hello') {
    const { device, name, key } = said
    return { type: 'hello', device, name, key }
  }
  if (said.type !== 'mass') return said
  const none = said.overload || said.value === null
  return {
    type: 'mass',
    massG: none ? null : said.value! * GRAMS_PER[said.unit],
    stable: said.stable && !none,
    tared: said.tare ?? null,
    overload: said.overload,
  }
}

/** A scale that sends what it shows and nothing else: what says nothing of standing still is not taken for stable. */
function readPlain(text: string): DeviceMessage | undefined {
  const reading = parseScaleLine(text)
  return (
    reading && {
      type: 'mass',
      massG: reading.massG,
      stable: reading.stable === true,
      tared: null,
      overload: false,
    }
  )
}

/** Cuts what arrives into lines; a line that never ends is given up at its limit. */
export class LineCutter {
  private rest = ''
  private skipping = false

  /** @returns the lines that are whole now. `tooLong` counts those that were passed over. */
  cut(text: string): { lines: string[]; tooLong: number } {
    const parts = (this.rest + text).split(/\r\n|\r|\n/)
    this.rest = parts.pop()!
    let tooLong = 0
    const lines = parts.filter((line, i) => {
      const whole = !(i === 0 && this.skipping) && line.length <= MOST_LINE_BYTES
      if (!whole) tooLong += 1
      return whole && line.trim() !== ''
    })
    if (parts.length > 0) this.skipping = false
    if (this.rest.length > MOST_LINE_BYTES) {
      this.skipping = true
      this.rest = ''
    }
    return { lines, tooLong }
  }
}
