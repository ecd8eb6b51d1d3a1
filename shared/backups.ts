/** Backups that the start script makes by itself each day. */

/** Why there is none of today. */
export const BACKUP_FAILURES = ['no_room', 'not_written', 'not_read_back', 'differs'] as const
export type BackupFailure = (typeof BACKUP_FAILURES)[number]

/** What the start script notes beside them, under this name. */
export const BACKUP_STATUS = 'status.json'
export interface BackupStatus {
  /** Written, read back into an empty database, and found the same. */
  lastGood?: { atMs: number; name: string; bytes: number }
  lastFailure?: { atMs: number; why: BackupFailure }
}

export interface BackupsAnswer extends BackupStatus {
  /** The newest first. */
  files: { name: string; atMs: number; bytes: number }[]
  /** Too long ago, and nothing is on its way. */
  overdue: boolean
  /** A second database that follows the first, how far behind it is, ms, null where it cannot be reached; null: there is none. */
  replica: { lagMs: number | null } | null
}
