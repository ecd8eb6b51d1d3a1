import { z } from 'zod'
import { ROLES, type Role } from './roles'
import { text } from './text'

/** Somebody of the workshop, and where they are let in. */
export interface PersonCard {
  id: string
  name: string
  role: Role
  /** The one used last first. */
  devices: { id: string; name: string; sinceMs: number; seenMs: number }[]
}

/** Who asks: whoever sits at the server's own machine, or somebody on a device that was let in. */
export type Me =
  | { at: 'machine' }
  | { at: 'network'; personId: string; name: string; role: Role; device: string; workshopName: string }

export interface PeopleAnswer {
  people: PersonCard[]
  /** Where other devices reach this server; null: nowhere. */
  address: string | null
}

const NAME = 60

export const personInputSchema = z.strictObject({ name: text(NAME).min(1), role: z.enum(ROLES) })
export type PersonInput = z.output<typeof personInputSchema>

export const newPersonSchema = personInputSchema.extend({ id: z.uuid() })

/** What the desk shows as a code: good once, and not for long. */
export interface Pairing {
  token: string
  expiresAtMs: number
}

/** What the device says that has read it. */
export const pairSchema = z.strictObject({ token: z.string().max(100), device: text(NAME) })
