import { randomBytes } from 'node:crypto'
import { clearSession, unsealSession, updateSession, type H3Event, type SessionConfig } from 'h3'
import { z } from 'zod'
import { placeOf, workshopCookie } from '../../shared/place'
import { RIGHTS_OF, type Right } from '../../shared/roles'
import type { Settings } from '../../shared/contracts'
import type { Me } from '../../shared/people'
import { useConfig } from '../config'
import { DomainError } from '../services/domainError'
import { endSession, findEndedSession, findSession, type Session } from '../services/people'
import { getSettings } from '../services/workshop'
import { AttemptGate } from './attempts'
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
 * fewer rights than without it. Behind a proxy everybody comes from the network.
 */
export const cameByNetwork = (event: H3Event): boolean =>
  useConfig().proxies !== undefined || getRequestHeader(event, 'x-ripples-network') !== undefined

/** Who is connected, in one spelling. */
export const connectedFrom = (event: H3Event): string =>
  (event.node.req.socket.remoteAddress ?? '').replace(/^::ffff:/, '')

/**
 * Where a request comes from: of the network, as it was told by what let it in. Each proxy adds whom it was asked by at the
 * end; what stands before that whoever asks may have written.
 */
export function addressOf(event: H3Event): string {
  if (!cameByNetwork(event)) return connectedFrom(event)
  const ours = useConfig().proxies ?? []
  const passed = (getRequestHeader(event, 'x-forwarded-for') ?? '').split(',').map((a) => a.trim())
  return passed.reverse().find((a) => a !== '' && !ours.includes(a)) ?? connectedFrom(event)
}

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

/** Who was on this device before it was put out, and where. @throws `sign_in` where nobody was, or is still. */
export async function requireEndedSession(event: H3Event) {
  const sealed = cameByNetwork(event) ? await sealedOf(event) : undefined
  const db = sealed && useDatabase().workshop(sealed.workshopId)
  const ended = db && (await findEndedSession(db, sealed.id))
  if (!db || !ended) throw new DomainError('sign_in')
  return { db, ...ended }
}

/** Who is on this device; undefined where nobody is. */
export async function sessionOf(event: H3Event): Promise<Session | undefined> {
  const sealed = await sealedOf(event)
  if (!sealed) return undefined
  const { workshopId, id } = sealed
  return findSession(useDatabase().workshop(workshopId), workshopId, id, addressOf(event))
}

/** @throws `sign_in` where nobody on this device was let in, or is not any more. */
async function askerOf(event: H3Event): Promise<Asker> {
  if (!cameByNetwork(event)) return { at: 'machine' }
  const session = await sessionOf(event)
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

/** The same for what only somebody of the network has. @throws `not_allowed` at the machine itself. */
export function requirePerson(event: H3Event): Session {
  const asker = useAsker(event)
  if (asker.at === 'machine') throw new DomainError('not_allowed')
  return asker
}

/** What a device is told of who is on it. */
export function meOf(
  { workshopId, personId, name, role, id, device }: Session,
  { workshopName }: Pick<Settings, 'workshopName'>,
): Me {
  return { at: 'network', workshopId, personId, name, role, sessionId: id, device, workshopName }
}

/** Passwords that were wrong, by whom and from where. */
export const signInGate = new AttemptGate()

/** Nobody is on this browser any more, and nothing that was shown on it can be called up again. */
export async function endOwnSession(event: H3Event): Promise<void> {
  const config = sessionConfig(event)
  await clearSession(event, config)
  deleteCookie(event, workshopCookie(portOf(event)), { path: '/' })
  setResponseHeader(event, 'clear-site-data', '"cache"')
}

/** From here on this browser is on that device; whoever was on it before is not. */
export async function beginSession(event: H3Event, session: Session): Promise<Me> {
  const { workshopId, id, personId } = session
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
  return meOf(session, await getSettings(useDatabase().workshop(workshopId)))
}
