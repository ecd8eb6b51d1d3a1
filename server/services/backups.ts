import { createReadStream, type ReadStream } from 'node:fs'
import { readFile, readdir, stat } from 'node:fs/promises'
import { join } from 'node:path'
import { MS_PER } from '../../core/units'
import { BACKUP_STATUS, type BackupStatus, type BackupsAnswer } from '../../shared/backups'
import { DomainError } from './domainError'

/** Backups of this server, as the start script leaves them. */

const NAME = /^[\w-]+\.backup$/
/** More than a day, for a machine that was off overnight. */
const OVERDUE_MS = 2 * MS_PER.day
/** As long as the first one after a start may take. */
const GRACE_S = 900

async function statusIn(folder: string): Promise<BackupStatus> {
  try {
    return JSON.parse(await readFile(join(folder, BACKUP_STATUS), 'utf8')) as BackupStatus
  } catch {
    return {}
  }
}

/** @param upS for how long this server has been up: the day's backup waits until it has settled. */
export async function listBackups(
  folder: string | undefined,
  nowMs: number,
  upS: number,
): Promise<Omit<BackupsAnswer, 'replica'>> {
  if (folder === undefined) return { files: [], overdue: false }
  const names = (await readdir(folder).catch(() => [])).filter((name) => NAME.test(name))
  const files = await Promise.all(
    names.map(async (name) => {
      const { mtimeMs, size } = await stat(join(folder, name))
      return { name, atMs: Math.round(mtimeMs), bytes: size }
    }),
  )
  const { lastGood, lastFailure } = await statusIn(folder)
  const isOld = lastGood ? nowMs - lastGood.atMs > OVERDUE_MS : lastFailure !== undefined
  return {
    lastGood,
    lastFailure,
    files: files.sort((a, b) => b.atMs - a.atMs || (a.name < b.name ? 1 : -1)),
    overdue: isOld && upS > GRACE_S,
  }
}

/** @throws `not_found` */
export async function openBackup(
  folder: string | undefined,
  name: string,
): Promise<{ bytes: number; content: ReadStream }> {
  if (folder === undefined || !NAME.test(name)) throw new DomainError('not_found')
  const path = join(folder, name)
  const found = await stat(path).catch(() => undefined)
  if (!found?.isFile()) throw new DomainError('not_found')
  return { bytes: found.size, content: createReadStream(path) }
}
