import type { HeedSubject } from '#core/pour'

const KEPT_WITH = { mould: 'the mould', recipe: 'the recipe', bag: 'the bag' } as const

/** With what a cause stays. */
export function keptWithWords(subject: HeedSubject): string {
  return KEPT_WITH[subject.split(':')[0] as keyof typeof KEPT_WITH]
}

/** The same of several: the mould and the recipe. */
export function keptWithAllWords(subjects: readonly HeedSubject[]): string {
  return [...new Set(subjects.map(keptWithWords))].join(' and ')
}
