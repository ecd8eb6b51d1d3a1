import { format } from 'node:util'
import { pino } from 'pino'
import { useConfig } from '../config'
import { LogFile } from './logFile'

let logger: ReturnType<typeof pino> | undefined
let file: LogFile | undefined

/** One JSON line an entry, in the log's files; without those on standard error, so that standard output stays the start script's own. */
export function useLogger() {
  if (logger) return logger
  const { logLevel, logPath } = useConfig()
  if (logPath !== undefined) file = new LogFile(logPath, () => Date.now())
  logger = pino({ level: logLevel, base: undefined }, file ?? pino.destination(2))
  return logger
}

/** Resolves when the log lies on the disk. */
export async function flushLog(): Promise<void> {
  await file?.flushed()
}

/**
 * What libraries say on the console goes the way of the log, which is bounded. A full disk behind standard error would
 * else be a fault to report, there.
 */
export function logConsole(): void {
  process.stderr.on('error', () => {})
  process.stdout.on('error', () => {})
  if (useConfig().logPath === undefined) return
  const log = useLogger()
  const as =
    (level: 'error' | 'warn' | 'info') =>
    (...said: unknown[]) =>
      log[level](format(...said))
  Object.assign(console, { error: as('error'), warn: as('warn'), log: as('info'), info: as('info') })
}
