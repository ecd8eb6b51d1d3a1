import { z } from 'zod'

/** A workshop of this server, as its list says it. */
export interface WorkshopHere {
  id: string
  name: string
  /** Only for looking round in: made up, and made anew when it has grown old. */
  isDemo: boolean
  /** What this machine opens at first touch. */
  isHome: boolean
}

/** Another workshop: with an id of the client's own, empty; or the one for looking round in, which there is once. */
export const newWorkshopSchema = z.union([
  z.strictObject({ id: z.uuid() }),
  z.strictObject({ demo: z.literal(true) }),
])
export type NewWorkshop = z.output<typeof newWorkshopSchema>
