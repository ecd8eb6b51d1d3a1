import { randomUUID } from 'node:crypto'
import { mkdtemp, readdir, rm, statfs } from 'node:fs/promises'
import { join } from 'node:path'
import pLimit from 'p-limit'
import { MS_PER } from '../../../core/units'
import type { BundleJob } from '../../../shared/bundle'
import { DomainError } from '../domainError'

/** Whoever asked has long gone. */
export const JOB_KEPT_MIN = 120
const KEPT_MS = JOB_KEPT_MIN * MS_PER.min
/** Each holds a file as large as a workshop. */
const MOST_JOBS = 4

/** Work on a bundle in this process, with a folder of its own; nothing of it is truth, and it dies with the process. */
export interface Job {
  workshopId: string
  folder: string
  view: BundleJob
  /** Set when nobody wants it any more: whoever works on it looks at this between files. */
  cancelled: boolean
  startedMs: number
}

/** Thrown out of work that nobody wants any more. */
export class Cancelled extends Error {
  override name = 'Cancelled'
}

const jobs = new Map<string, Job>()

export function stopIfCancelled(job: Job): void {
  if (job.cancelled) throw new Cancelled('nobody wants it any more')
}

async function dropOld(nowMs: number): Promise<void> {
  for (const job of jobs.values()) if (nowMs - job.startedMs > KEPT_MS) await endJob(job)
}

const PREFIX = 'nine-ripples-bundle-'

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM'
  }
}

/** What processes that were killed have left behind. */
async function dropOrphans(workFolder: string): Promise<void> {
  for (const name of await readdir(workFolder)) {
    const pid = new RegExp(`^${PREFIX}(\\d+)-`).exec(name)?.[1]
    if (pid && !isAlive(Number(pid))) await rm(join(workFolder, name), { recursive: true, force: true })
  }
}

/** Left free whatever comes: the database writes to the same disk. */
const RESERVE_BYTES = 500e6

/**
 * @param workFolder where the job gets a folder of its own.
 * @param needBytes how large its file may get.
 * @throws DomainError too_many_jobs where several are under way: the same may be asked again; no_room.
 */
export async function openJob(
  { workshopId, kind, nowMs }: { workshopId: string; kind: BundleJob['kind']; nowMs: number },
  workFolder: string,
  needBytes: number,
): Promise<Job> {
  await dropOld(nowMs)
  await dropOrphans(workFolder)
  if ([...jobs.values()].filter((j) => j.view.state === 'running').length >= MOST_JOBS)
    throw new DomainError('too_many_jobs')
  const { bavail, bsize } = await statfs(workFolder)
  if (needBytes + RESERVE_BYTES > bavail * bsize) throw new DomainError('no_room')
  const id = randomUUID()
  const job: Job = {
    workshopId,
    folder: await mkdtemp(join(workFolder, `${PREFIX}${process.pid}-`)),
    view: { id, kind, state: 'running', ahead: 0, done: 0, total: 0 },
    cancelled: false,
    startedMs: nowMs,
  }
  jobs.set(id, job)
  return job
}

/** Undefined for another workshop's as well. */
export function findJob(workshopId: string, id: string): Job | undefined {
  const job = jobs.get(id)
  return job?.workshopId === workshopId ? job : undefined
}

/** Gives a job up, and what it had written with it. */
export async function endJob(job: Job): Promise<void> {
  job.cancelled = true
  jobs.delete(job.view.id)
  await rm(job.folder, { recursive: true, force: true })
}

/** Files as large as a workshop are read and written one at a time: whoever is at the bench goes first. */
const oneAtATime = pLimit(1)
const line: Job[] = []
function tellPlaces(): void {
  line.forEach((job, nth) => (job.view.ahead = nth))
}

/** For what is as heavy, and answered while it is waited for. */
export function inLine<T>(work: () => Promise<T>): Promise<T> {
  return oneAtATime(work)
}

/** Works on while the request that asked for it is answered, in its turn. @param onFault hears of what is no fault of the file's. */
export function runJob(job: Job, work: () => Promise<void>, onFault: (error: unknown) => void): void {
  line.push(job)
  tellPlaces()
  void oneAtATime(async () => {
    stopIfCancelled(job)
    await work()
  })
    .catch((error: unknown) => {
      if (error instanceof Cancelled || job.cancelled) return
      job.view.state = 'failed'
      const isFull = (error as NodeJS.ErrnoException).code === 'ENOSPC'
      job.view.failure = error instanceof DomainError ? error.code : isFull ? 'no_room' : 'internal'
      if (job.view.failure === 'internal') onFault(error)
    })
    .finally(() => {
      line.splice(line.indexOf(job), 1)
      tellPlaces()
    })
}
