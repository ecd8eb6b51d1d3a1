import type { ThermometerTold } from '#core/pour'

/** What somebody says of a doubted thermometer: on its button, and as it was said. */
export const TOLD_WORDS: Record<ThermometerTold, { press: string; said: string }> = {
  fahrenheit: { press: 'Read it as °F', said: 'reads °F' },
  in_air: { press: 'It is in the air', said: 'hung in the air until then' },
  elsewhere: { press: 'It is in another', said: 'sat in another until then' },
  off: { press: 'Switch it off', said: 'switched off' },
  right: { press: 'It is right', said: 'is right' },
}
