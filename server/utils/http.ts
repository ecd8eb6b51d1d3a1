import type { EventHandler, H3Event } from 'h3'
import type { z } from 'zod'
import { deviceIdSchema } from '../../shared/deviceLine'
import type { ApiErrorBody, ErrorCode } from '../../shared/errors'
import { DomainError } from '../services/domainError'
import { PoolBusyError } from '../db/client'
import { isPath, rightFor } from './apiPaths'
import { admit } from './asker'
import { isDiskFull } from './disk'
import { useLogger } from './logger'

const STATUS: Record<ErrorCode, number> = {
  invalid_input: 400,
  invalid_json: 400,
  wrong_content_type: 415,
  payload_too_large: 413,
  not_found: 404,
  method_not_allowed: 405,
  foreign_origin: 403,
  no_workshop: 410,
  elsewhere: 409,
  sign_in: 401,
  not_allowed: 403,
  code_spent: 410,
  wrong_password: 403,
  too_many_attempts: 429,
  name_taken: 409,
  too_many_people: 409,
  too_many_devices: 409,
  refused_by_keeper: 409,
  last_keeper: 409,
  event_id_conflict: 409,
  pour_id_conflict: 409,
  card_id_conflict: 409,
  stale_plan: 409,
  stale_card: 409,
  in_use: 409,
  plan_locked: 409,
  record_unreadable: 409,
  unknown_event: 409,
  cannot_void_void: 409,
  time_in_future: 400,
  not_a_picture: 415,
  photo_too_large: 413,
  too_many_photos: 409,
  too_many_streams: 503,
  too_many_jobs: 503,
  no_room: 507,
  disk_full: 503,
  unavailable: 503,
  internal: 500,
}

const MAX_BODY_BYTES = 256 * 1024

/** When to come again where the server has no room just now, s. */
const RETRY_AFTER_S = 1

/**
 * The database is away, full or busy, not the request wrong: connection faults, a lock or an answer waited for too long, a
 * deadlock, no room left, a disk that fails (SQLSTATE 08, 53, 57P0x, 57014, 58, 55P03, 40001, 40P01), and sockets.
 */
function isDatabaseAway(error: unknown): boolean {
  if (error instanceof PoolBusyError) return true
  const code = String((error as { code?: unknown } | null)?.code ?? '')
  const message = error instanceof Error ? error.message : ''
  return (
    /^(08...|53...|57P0.|57014|58...|55P03|40001|40P01|ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT)$/.test(
      code,
    ) ||
    /Connection terminated|connection error and is not queryable|timeout exceeded when trying to connect/.test(
      message,
    )
  )
}

/** A value the database cannot hold: out of range, or no such text (SQLSTATE class 22). */
const isUnholdable = (error: unknown) =>
  /^22...$/.test(String((error as { code?: unknown } | null)?.code ?? ''))

/** There is no room for it on the disk: said by the database (SQLSTATE 53100) or by the system. */
const isWithoutRoom = (error: unknown) =>
  ['53100', 'ENOSPC', 'EDQUOT'].includes(String((error as { code?: unknown } | null)?.code ?? ''))

async function codeOf(error: unknown): Promise<ErrorCode> {
  if (isWithoutRoom(error)) return 'disk_full'
  // Of a full disk the database may stop altogether.
  if (isDatabaseAway(error)) return (await isDiskFull()) ? 'disk_full' : 'unavailable'
  return isUnholdable(error) ? 'invalid_input' : 'internal'
}

/**
 * Wraps a route: nobody comes through who may not (`apiPaths.ts`), expected failures become their code and status, anything else is logged in full and answered
 * with a code only, so that nothing internal leaks.
 */
export function defineRoute<T>(handler: (event: H3Event) => Promise<T>): EventHandler {
  return defineEventHandler(async (event) => {
    try {
      const path = event.context.matchedRoute?.path ?? ''
      const right = rightFor(path, event.method)
      if (right === undefined) throw new DomainError(isPath(path) ? 'method_not_allowed' : 'not_found')
      if (right !== 'open') await admit(event, right)
      return await handler(event)
    } catch (error) {
      const known = error instanceof DomainError ? error : new DomainError(await codeOf(error))
      if (known !== error) useLogger().error({ err: error, path: event.path }, 'request failed')
      const status = STATUS[known.code]
      setResponseStatus(event, status)
      if (status === 503) setResponseHeader(event, 'retry-after', RETRY_AFTER_S)
      const { code, fields, current } = known
      return {
        error: { code, fields, ...(current === undefined ? {} : { current }) },
      } satisfies ApiErrorBody
    }
  })
}

export function parseWith<S extends z.ZodType>(schema: S, input: unknown): z.output<S> {
  const parsed = schema.safeParse(input)
  if (parsed.success) return parsed.data
  throw new DomainError(
    'invalid_input',
    parsed.error.issues.slice(0, 20).map((i) => ({ path: i.path.join('.'), message: i.message })),
  )
}

async function readLimited(event: H3Event, maxBytes: number): Promise<Buffer | undefined> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req) {
    size += chunk.length
    // Keep draining without keeping: an early answer with the body unread resets the connection.
    if (size <= maxBytes) chunks.push(chunk)
  }
  return size > maxBytes ? undefined : Buffer.concat(chunks)
}

/** Other content types are refused: a plain form on another site can then do nothing. */
export function requireJson(event: H3Event): void {
  const contentType = getRequestHeader(event, 'content-type') ?? ''
  if (!/^application\/json\s*(;|$)/i.test(contentType)) throw new DomainError('wrong_content_type')
}

/** The JSON body, checked. */
export async function readJson<S extends z.ZodType>(
  event: H3Event,
  schema: S,
  maxBytes = MAX_BODY_BYTES,
): Promise<z.output<S>> {
  requireJson(event)
  const body = await readLimited(event, maxBytes)
  if (!body) throw new DomainError('payload_too_large')
  let json: unknown
  try {
    json = JSON.parse(body.toString('utf8'))
  } catch {
    throw new DomainError('invalid_json')
  }
  return parseWith(schema, json)
}

/** A file as it is. Its content type must be a picture's: no plain form on another site can send one. */
export async function readPicture(event: H3Event, maxBytes: number): Promise<Buffer> {
  if (!/^image\//i.test(getRequestHeader(event, 'content-type') ?? '')) {
    throw new DomainError('not_a_picture')
  }
  const body = await readLimited(event, maxBytes)
  if (!body) throw new DomainError('photo_too_large')
  return body
}

export function readQuery<S extends z.ZodType>(event: H3Event, schema: S): z.output<S> {
  return parseWith(schema, getQuery(event))
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i

/** The `id` of the path. An id that cannot exist is simply not found. */
export function readId(event: H3Event): string {
  const id = getRouterParam(event, 'id') ?? ''
  if (!UUID.test(id)) throw new DomainError('not_found')
  return id.toLowerCase()
}

/** Devices name themselves. */
export function readDeviceId(event: H3Event): string {
  const id = deviceIdSchema.safeParse(getRouterParam(event, 'id'))
  if (!id.success) throw new DomainError('not_found')
  return id.data
}
