import { once } from 'node:events'
import { request, type IncomingMessage } from 'node:http'
import { pipeline } from 'node:stream/promises'
import type { EventHandler, H3Event } from 'h3'
import { sql } from 'kysely'
import type { BundleJob } from '../../shared/bundle'
import { useConfig } from '../config'
import { findJob, openJob, JOB_KEPT_MIN, type Job } from '../services/bundle/jobs'
import { DomainError } from '../services/domainError'
import { useWorkshop, type Workshop } from './database'
import { defineRoute, readId } from './http'

/** Work on a file is one process's; of several, each passes on what it is asked of another's. */

const PASSED_ON = 'x-ripples-passed-on'

/** @throws DomainError as `openJob` does. */
export async function beginJob(
  { id, db }: Workshop,
  kind: BundleJob['kind'],
  needBytes: number,
): Promise<Job> {
  const { workFolder, ownAddress } = useConfig()
  const job = await openJob({ workshopId: id, kind, nowMs: Date.now() }, workFolder, needBytes)
  if (ownAddress === undefined) return job
  await db
    .deleteFrom('bundle_job')
    .where(sql<boolean>`created_at < now() - make_interval(mins => ${JOB_KEPT_MIN})`)
    .execute()
  await db.insertInto('bundle_job').values({ id: job.view.id, address: ownAddress }).execute()
  return job
}

/** Asks whoever has it in hand. @throws DomainError not_found where that process has ended, and the work with it. */
async function passOn(event: H3Event, { db }: Workshop, id: string): Promise<void> {
  const row = await db.selectFrom('bundle_job').select('address').where('id', '=', id).executeTakeFirst()
  const isOurs = row?.address === useConfig().ownAddress
  if (!row || isOurs || getRequestHeader(event, PASSED_ON)) throw new DomainError('not_found')
  const { req, res } = event.node
  // With the name that it was asked by, which a fetch would not keep.
  const asking = request(`${row.address}${event.path}`, {
    method: req.method,
    headers: { ...req.headers, [PASSED_ON]: '1' },
  })
  const answered = once(asking, 'response') as Promise<[IncomingMessage]>
  req.pipe(asking)
  const [answer] = await answered.catch(() => {
    throw new DomainError('not_found')
  })
  res.writeHead(answer.statusCode!, answer.headers)
  await pipeline(answer, res)
}

/** A route about one of them. */
export const defineJobRoute = <T>(
  handler: (event: H3Event, job: Job, workshop: Workshop) => Promise<T>,
): EventHandler =>
  defineRoute(async (event) => {
    const workshop = await useWorkshop(event)
    const id = readId(event)
    const job = findJob(workshop.id, id)
    return job ? handler(event, job, workshop) : passOn(event, workshop, id)
  })
