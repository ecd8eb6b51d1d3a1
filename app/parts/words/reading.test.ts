import { fleschKincaid } from 'flesch-kincaid'
import { syllable } from 'syllable'
import { expect, it } from 'vitest'
import { KNOWN_STEPS } from '#core/pour'
import { CAUTIONS } from '~/parts/show/cautions'
import { CAUSE_WORDS } from './causes'
import { CUE_QUESTIONS } from './cues'
import { CONDITION_WORDS, OUT_STEP_WORDS, SIGN_WORDS } from './demould'
import { TASK_WORDS } from './finish'
import { PREPARATION_WORDS, TACTIC_WORDS } from './mould'
import { LATE_WORDS } from './pour'
import { stepWords } from './steps'

/** What a caster with wet hands is told, sentence by sentence. */
const said = [
  ...KNOWN_STEPS.map((id) => stepWords({ id, batch: 0 }, {}).how),
  ...Object.values(CAUTIONS).map(({ text }) => text((c) => `${c} degrees`)),
  ...Object.values(CAUSE_WORDS).map(({ next }) => next),
  ...Object.values(CUE_QUESTIONS),
  ...Object.values(CONDITION_WORDS),
  ...Object.values(OUT_STEP_WORDS),
  ...SIGN_WORDS.map(({ means }) => means),
  ...Object.values(TASK_WORDS).map(({ spoils }) => spoils),
  ...Object.values(PREPARATION_WORDS),
  ...Object.values(TACTIC_WORDS),
  ...Object.values(LATE_WORDS),
]

/** School grade at which a text is read with ease (Flesch and Kincaid 1975). */
function grade(text: string): number {
  const sentences = text.split(/[.?!;:](?:\s|$)/).filter((s) => s.trim() !== '')
  const words = text.match(/[a-z’'-]+/gi) ?? []
  return fleschKincaid({
    sentence: sentences.length,
    word: words.length,
    syllable: syllable(words.join(' ')),
  })
}

it('what is said at the bench is read with ease by whoever left school', () => {
  expect(said.length).toBeGreaterThan(150)
  const grades = said.map((text) => ({ text, grade: grade(text) })).sort((a, b) => a.grade - b.grade)
  expect(grades[Math.floor(grades.length / 2)]!.grade).toBeLessThan(7)
  // One in twenty may name what has a long name.
  expect(grades[Math.floor(0.95 * grades.length)]!.grade).toBeLessThan(12)
  expect(
    grade('Subsequent rehydration notwithstanding, commence homogenisation of the constituent materials'),
  ).toBeGreaterThan(12)
})
