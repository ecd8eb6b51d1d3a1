import type { BackupFailure } from '~~/shared/backups'
import { figure } from '~/parts/show/figures'

export const BACKUP_FAILURE_WORDS: Record<BackupFailure, string> = {
  no_room: 'The last backup could not be made: the disk has no room for it.',
  not_written: 'The last backup could not be written.',
  not_read_back: 'The last backup could not be read back, and was not kept.',
  differs: 'The last backup was not what the workshop holds, and was not kept.',
}

export const bytesText = (bytes: number): string =>
  bytes < 1e6
    ? `${figure(bytes / 1e3, 0)} kB`
    : bytes < 1e9
      ? `${figure(bytes / 1e6, 1)} MB`
      : `${figure(bytes / 1e9, 1)} GB`
