import { z } from 'zod'
import { ROLES, type Role } from './roles'
import type { ErrorCode } from './errors'
import { postedEventSchema, type PostedEvent } from './pourEvents'
import { id, text } from './text'

export interface DeviceOfPerson {
  id: string
  name: string
  sinceMs: number
  seenMs: number
  /** Its address then; null where that was not said. */
  seenFrom: string | null
}

/** Somebody of the workshop, and where they are let in. */
export interface PersonCard {
  id: string
  name: string
  role: Role
  /** What their pours were recorded under before they were let in. */
  names: string[]
  /** The one used last first. */
  devices: DeviceOfPerson[]
}

/** Who asks: whoever sits at the server's own machine, or somebody on a device that was let in. */
export type Me =
  | { at: 'machine' }
  | {
      at: 'network'
      workshopId: string
      personId: string
      name: string
      role: Role
      sessionId: string
      device: string
      workshopName: string
    }

/** A workshop that somebody belongs to. */
export interface MyPlace {
  workshopId: string
  name: string
  role: Role
}
/** What somebody is told of themselves. */
export interface MyAccount {
  /** What they sign in by; null: by codes alone. */
  signInName: string | null
  places: MyPlace[]
  devices: PersonCard['devices']
}

export interface PeopleAnswer {
  people: PersonCard[]
  /** Where other devices reach this server; null: nowhere. */
  address: string | null
  /** Hands that something was learnt of under a name alone, which is nobody's yet. */
  looseNames: string[]
}

const NAME = 60

export const personInputSchema = z.strictObject({ name: text(NAME).min(1), role: z.enum(ROLES) })
export type PersonInput = z.output<typeof personInputSchema>

export const newPersonSchema = personInputSchema.extend({ id: z.uuid() })

/** What somebody recorded who had been put out by the time that it came. */
export interface HeldByPerson {
  personId: string
  name: string
  device: string
  /** In the order in which it happened. `piece` is null where there is no such pour. */
  events: { pourId: string; piece: string | null; event: PostedEvent }[]
}
export interface HeldTaken {
  taken: number
  /** What could not be recorded, and why. */
  left: { id: string; code: ErrorCode }[]
}
export const heldSchema = z.strictObject({
  events: z
    .array(z.strictObject({ pourId: id, event: postedEventSchema }))
    .min(1)
    .max(100),
})
export type HeldInput = z.output<typeof heldSchema>

/** All the names that are theirs besides their own. */
export const personNamesSchema = z.strictObject({ names: z.array(text(NAME).min(1)).max(50) })

/** What the desk shows as a code: good once, and not for long. */
export interface Pairing {
  token: string
  expiresAtMs: number
}

/** For how long a code holds: for the device in one's hand, or sent to somebody. */
export const pairingSchema = z.strictObject({ for: z.enum(['device', 'invitation']) })
export type PairingFor = z.output<typeof pairingSchema>['for']

/** What the device says that has read it. */
export const pairSchema = z.strictObject({ token: z.string().max(100), device: text(NAME) })

const password = z.string().max(200)

export const passwordSchema = z.strictObject({
  name: text(NAME).min(1),
  password,
  /** The one there is. */
  before: password.optional(),
})
export type PasswordInput = z.output<typeof passwordSchema>

export const signInSchema = z.strictObject({ name: text(NAME), password, device: text(NAME) })
export const enterSchema = z.strictObject({ workshopId: z.uuid() })
