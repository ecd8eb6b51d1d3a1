import { pino } from 'pino'
import { useConfig } from '../config'

let logger: ReturnType<typeof pino> | undefined

/** One JSON line an entry on standard error, so that standard output stays the start script's own. */
export function useLogger() {
  logger ??= pino({ level: useConfig().logLevel, base: undefined }, pino.destination(2))
  return logger
}
