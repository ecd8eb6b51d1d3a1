import type { FactorId } from '#core/learn'
import { counted } from '~/parts/show/counted'
import { figure } from '~/parts/show/figures'

/** Less than this is no difference to speak of; of a bowl's yield, which is known more closely, less. */
const NO_DIFFERENCE = 0.03
const NO_DIFFERENCE_OF_YIELD = 0.01

interface FactorWords {
  title: string
  /** More than the model says, and less. */
  more: string
  less: string
  same: string
}

/** What is learnt, as a person would say it: "sets 18 % slower than its card". */
export const FACTOR_WORDS: Record<FactorId, FactorWords> = {
  set_time: {
    title: 'How fast it sets',
    more: 'sets # slower than its card',
    less: 'sets # faster than its card',
    same: 'sets as its card says',
  },
  heat: {
    title: 'How warm it gets',
    more: 'warms # more than its class',
    less: 'warms # less than its class',
    same: 'warms as its class does',
  },
  drying: {
    title: 'How fast it dries',
    more: 'dries # faster than its air would',
    less: 'dries # slower than its air would',
    same: 'dries as its air would',
  },
  scoop_density: {
    title: 'What a scoop of it weighs',
    more: 'scoops # heavier than its class',
    less: 'scoops # lighter than its class',
    same: 'scoops as its class does',
  },
  sprinkled: {
    title: 'Sifted by eye',
    more: 'stops early, with # more water than the look should give',
    less: 'goes on to # less water than the look should give',
    same: 'sifts to what the look should give',
  },
  slurry_yield: {
    title: 'What comes out of the bowl',
    more: 'gives # more than was reckoned',
    less: 'gives # less than was reckoned',
    same: 'gives what was reckoned',
  },
}

/** @param factor seen over expected. */
export function factorText(id: FactorId, factor: number): string {
  const words = FACTOR_WORDS[id]
  const off = Math.abs(factor - 1)
  if (off < (id === 'slurry_yield' ? NO_DIFFERENCE_OF_YIELD : NO_DIFFERENCE)) return words.same
  return (factor > 1 ? words.more : words.less).replace('#', `${figure(100 * off)} %`)
}

export const factorSentence = (id: FactorId, factor: number, pours: number) =>
  `${factorText(id, factor)}: ${counted(pours, 'pour')}`
