import type { LoggerFault, LoggerTime } from '#core/formats'

export const LOGGER_TIME_WORDS: Record<LoggerTime, string> = {
  zoned: 'day, time and zone',
  moment: 'day and time',
  clock: 'time of day',
  minutes: 'minutes',
  seconds: 'seconds',
}

export const LOGGER_FAULT_WORDS: Record<LoggerFault, string> = {
  no_two_columns: 'No column of times beside one of temperatures was found in it.',
  no_times: 'None of its times reads like that.',
  no_temperatures: 'None of its temperatures reads as a number.',
  too_few: 'Fewer than three readings: nothing to go by.',
  not_rising: 'Its times go back and forth. Are they what you said?',
  beyond_belief: 'It holds temperatures that no plaster and no shed has. Are they what you said?',
}
