import { z } from 'zod'
import { MAX_BATCHES } from '../core/mix'
import { DEVICE_CHANNELS, type DeviceChannel, type TempChannel } from '../core/pour'
import { deviceIdSchema } from './deviceLine'
import { id, instantMs, text } from './text'

/** Devices as the workshop knows them, and what they say as it happens. */

export const deviceChannelSchema = z
  .string()
  .regex(new RegExp(`^(${Object.values(DEVICE_CHANNELS).join('|')})$`))
  .transform((channel) => channel as DeviceChannel)

export const tempChannelSchema = z
  .string()
  .regex(new RegExp(`^${DEVICE_CHANNELS.t}$`))
  .transform((channel) => channel as TempChannel)

export interface DeviceUse {
  channel: DeviceChannel
  pourId: string
  batch: number
  sinceMs: number
}

export interface DeviceCard {
  /** As it calls itself. */
  id: string
  name: string
  uses: DeviceUse[]
}

/** Put to a pour and a bowl, until it is put elsewhere or taken off (`to` null). */
export const deviceUsePutSchema = z.object({
  channel: deviceChannelSchema,
  to: z
    .object({
      pourId: id,
      batch: z
        .int()
        .min(0)
        .max(2 * MAX_BATCHES),
    })
    .nullable(),
})

/** A logger's readings, read in from its file: one thermometer of its own, named by what the file holds. */
const loggerFileId = z.string().regex(/^file\.[0-9a-f]{16}$/)
export const loggerReadingsSchema = z.object({
  file: loggerFileId,
  batch: z
    .int()
    .min(0)
    .max(2 * MAX_BATCHES),
  readings: z
    .array(z.object({ atMs: instantMs, tempC: z.number().min(-40).max(150) }))
    .min(3)
    .max(2000),
})
export const loggerFileQuerySchema = z.object({ file: loggerFileId })

/**
 * Asks a scale to zero itself; asked twice under one id, by two windows that heard one press, it does it once.
 * `zeroedAtMs` is the zero that whoever asks knows of, as last told: where there is a newer one, it is done already.
 */
export const tareSchema = z.object({ id, zeroedAtMs: instantMs.nullable() })
export type TareAsk = z.infer<typeof tareSchema>

/** Which reading somebody acted on. */
export const readingRefSchema = z.object({
  device: deviceIdSchema,
  channel: deviceChannelSchema,
  atMs: instantMs,
})

/** Why a device was turned away at the door. */
export type RefusedWhy = 'no_key' | 'wrong_key' | 'other_device' | 'in_use'
export interface Refusal {
  device: string
  name: string
  /** Of the network it came from; empty at the machine itself. */
  address: string
  why: RefusedWhy
  atMs: number
}

/** What one device of the network is let in by. */
export interface DeviceKeyCard {
  id: string
  name: string
  /** As the one calls itself that has come by it; null before. */
  device: string | null
  sinceMs: number
}
export interface DeviceKeysAnswer {
  keys: DeviceKeyCard[]
  /** Where devices of the network connect; null: nowhere. */
  address: string | null
}
export const newDeviceKeySchema = z.strictObject({ id, name: text(60).min(1) })

/** What a device says, as it happens: not kept, and not repeated to a window that was away. */
export type LiveMessage =
  | {
      kind: 'mass'
      device: string
      atMs: number
      massG: number | null
      stable: boolean
      overload: boolean
      /** When it last stood at nothing with the bowl on it; null where nothing is known of that. */
      zeroedAtMs: number | null
    }
  | { kind: 'temperature'; device: string; atMs: number; channel: `t${number}`; tempC: number | null }
  /** Once for each press; `id` tells two of them apart. */
  | { kind: 'button'; device: string; atMs: number; button: number; id: string }
  /** So many of its lines were not heard: it says more than is listened to. */
  | { kind: 'dropped'; device: string; atMs: number; lines: number }
  | ({ kind: 'refused' } & Refusal)
  /** That it is there, or has gone. */
  | { kind: 'here'; device: string; atMs: number; here: boolean }

/** A reading that was kept: at most one a second, at least one each ten seconds. */
export interface KeptReading {
  device: string
  channel: DeviceChannel
  batch: number
  atMs: number
  /** g or °C, by the channel. */
  value: number
  stable: boolean
}
