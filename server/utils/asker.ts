import { randomBytes } from 'node:crypto'
import {
  clearSession,
  getRequestIP,
  unsealSession,
  updateSession,
  type H3Event,
  type SessionConfig,
} from 'h3'
import { z } from 'zod'
import { placeOf, workshopCookie } from '../../shared/place'
import { RIGHTS_OF, type Right } from '../../shared/roles'
import { useConfig } from '../config'
import { DomainError } from '../services/domainError'
import { endSession, findSession, type Session } from '../services/people'
import { useDatabase } from './database'

/** Who asks: whoever sits at this machine, or somebody on a device of the network that was let in. */
export type Asker = { at: 'machine' } | ({ at: 'network' } & Session)

declare module 'h3' {
  interface H3EventContext {
    asker?: Asker
  }
}

/**
 * What lets the network in says so of each request, whatever the request says itself. Whoever puts it there by hand has
 * fewer rights than without it.
 */
export const cameByNetwork = (event: H3Event): boolean =>
  getRequestHeader(event, 'x-ripples-network') !== undefined

/** Where a request comes from: of the network, as it was told by what let it in. */
export const addressOf = (event: H3Event): string =>
  getRequestIP(event, { xForwardedFor: cameByNetwork(event) }) ?? ''

/** Without a key that outlives the process, whoever was let in is let in anew after it. */
const OWN_KEY = randomBytes(32).toString('hex')
/** As long as browsers keep anything. */
const LONGEST_S = 400 * 24 * 3600

const portOf = (event: H3Event) => /:(\d+)$/.exec(getRequestHeader(event, 'host') ?? '')?.[1] ?? ''

const sessionConfig = (event: H3Event): SessionConfig & { name: string } => ({
  password: useConfig().sessionKey ?? OWN_KEY,
  // Ports share cookies, servers do not.
  name: `ripples_session_${portOf(event)}`,
  maxAge: LONGEST_S,
  // Sent by no page of another site, read by no script, and never in the clear.
  cookie: { httpOnly: true, secure: true, sameSite: 'strict', path: '/' },
})

const sealedSchema = z.object({ data: z.object({ workshopId: z.uuid(), id: z.uuid() }) })

/** What this browser was let in with, if it was. */
async function sealedOf(event: H3Event): Promise<{ workshopId: string; id: string } | undefined> {
  const config = sessionConfig(event)
  const sealed = getCookie(event, config.name)
  if (!sealed) return undefined
  const opened = await unsealSession(event, config, sealed).catch(() => undefined)
  return sealedSchema.safeParse(opened).data?.data
}

/** @throws `sign_in` where nobody on this device was let in, or is not any more. */
async function askerOf(event: H3Event): Promise<Asker> {
  if (!cameByNetwork(event)) return { at: 'machine' }
  const sealed = await sealedOf(event)
  const session =
    sealed && (await findSession(useDatabase().workshop(sealed.workshopId), sealed.workshopId, sealed.id))
  if (!session) throw new DomainError('sign_in')
  return { at: 'network', ...session }
}

/** Lets a request through that may do this; every route goes by here (`defineRoute`). */
export async function admit(event: H3Event, right: Right): Promise<void> {
  const asker = await askerOf(event)
  if (asker.at === 'network' && !RIGHTS_OF[asker.role].includes(right)) throw new DomainError('not_allowed')
  event.context.asker = asker
  // A device passes from hand to hand: what one was shown is asked for anew by the next.
  if (asker.at === 'network') setResponseHeader(event, 'cache-control', 'private, no-store')
}

/** Who asks, once it was let through. */
export function useAsker(event: H3Event): Asker {
  if (!event.context.asker) throw new Error('nobody was let through here')
  return event.context.asker
}

/** Nobody is on this browser any more, and nothing that was shown on it can be called up again. */
export async function endOwnSession(event: H3Event): Promise<void> {
  const config = sessionConfig(event)
  await clearSession(event, config)
  deleteCookie(event, workshopCookie(portOf(event)), { path: '/' })
  setResponseHeader(event, 'clear-site-data', '"cache"')
}

/** From here on this browser is on that device; whoever was on it before is not. */
export async function beginSession(event: H3Event, { workshopId, id, personId }: Session): Promise<void> {
  const before = await sealedOf(event)
  if (before)
    await endSession(useDatabase().workshop(before.workshopId), before.id).catch((error: unknown) => {
      if (!(error instanceof DomainError)) throw error
    })
  const config = sessionConfig(event)
  await clearSession(event, config)
  await updateSession(event, config, { workshopId, id })
  // What a window is told of itself before it has asked anything.
  setCookie(event, workshopCookie(portOf(event)), placeOf(workshopId, personId), {
    secure: true,
    sameSite: 'strict',
    path: '/',
    maxAge: LONGEST_S,
  })
}
