import { statfs } from 'node:fs/promises'
import { useConfig } from '../config'

/** PostgreSQL stops where it cannot begin another file of its log, which is 16 MB. */
const NEEDED_BYTES = 20e6

/** Whether the disk that the workshop lies on is why the database does not take anything. */
export async function isDiskFull(): Promise<boolean> {
  const room = await statfs(useConfig().workFolder).catch(() => undefined)
  return room !== undefined && room.bavail * room.bsize < NEEDED_BYTES
}
