import type { SettlingAct } from '#core/stock'

/** What only the bench says. */

export const SETTLING_WORDS: Record<SettlingAct, string> = {
  filled: 'Filled',
  settled: 'Clear',
  poured_off: 'Poured off',
  emptied: 'Emptied',
}

export const SETTLING_NEXT_WORDS: Record<SettlingAct, string> = {
  filled: 'Ready for the next rinse',
  settled: 'Let it clear',
  poured_off: 'Pour the clear off, slowly; leave what lies below',
  emptied: 'Let the solid dry and put it in the bin, never a drain',
}

const COMMAND_WORDS: Record<string, string> = {
  plaster: 'The plaster',
  bag: 'The bag',
  bowl: 'The bowl',
  recipe: 'The recipe',
  mould: 'The mould',
  set: 'The set',
  place: 'The place',
  pour: 'The pour',
  plan: 'The changed plan of',
}
/** What was put down here, as a caster would say it. */
export const commandWords = ({ topic, name, method }: { topic: string; name: string; method: string }) =>
  `${COMMAND_WORDS[topic] ?? topic} ${name}${method === 'DELETE' ? ', taken away' : ''}`
