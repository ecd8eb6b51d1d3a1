import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import {
  LEARN_ALL,
  learnFrom,
  type FactorId,
  type LearnChoice,
  type LearntFactor,
  type Subject,
} from '#core/learn'
import type { Learning } from '~~/shared/learning'
import { callApi } from './api'
import { callKept } from './copies'
import { useClock } from './bench'

/** Pours are looked through a few at a time: while there are more, it is asked again. */
const MOST_ROUNDS = 40

/** What was learnt of bags, places, scoops, hands and bowls: asked for when somebody looks, and kept for the window. */
export const useLearning = defineStore('learning', () => {
  const clock = useClock()
  const known = shallowRef<ReadonlyMap<Subject, Learning>>(new Map())
  const asking = new Map<Subject, Promise<void>>()

  const put = (learning: Learning) => (known.value = new Map([...known.value, [learning.subject, learning]]))

  async function ask(subject: Subject) {
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const answer = await callKept<Learning>('/api/learning', { subject })
      if (!answer.ok) return
      put(answer.value)
      if (answer.value.pending === 0) return
    }
  }

  /** Resolves when it is known as it stands now, or cannot be had. */
  function load(subject: Subject): Promise<void> {
    const running = asking.get(subject)
    if (running) return running
    const asked = ask(subject).finally(() => asking.delete(subject))
    asking.set(subject, asked)
    return asked
  }

  const choiceOf = (subject: Subject, factor: FactorId): LearnChoice =>
    known.value.get(subject)?.choices[factor] ?? LEARN_ALL

  /** What plans go by; undefined while nobody has asked, or nothing was seen. */
  function seenOf(subject: Subject, factor: FactorId) {
    const seen = known.value.get(subject)?.seen[factor]
    return seen && { seen, choice: choiceOf(subject, factor) }
  }

  /** What pours have come to; undefined while nobody has asked, or nothing was seen. */
  function learnt(subject: Subject, factor: FactorId): LearntFactor | undefined {
    const found = seenOf(subject, factor)
    return found && learnFrom(factor, found.seen, clock.nowMs(), found.choice)
  }

  async function choose(subject: Subject, factor: FactorId, choice: LearnChoice): Promise<boolean> {
    const answer = await callApi<Learning>('/api/learning', {
      method: 'PUT',
      body: { subject, factor, choice },
    })
    if (answer.ok) put(answer.value)
    return answer.ok
  }

  return { known, load, choiceOf, seenOf, learnt, choose }
})
