import { MS_PER } from '#core/units'
import type { PourOutlook, PourView } from '#core/pour'
import { verdictText } from '~/parts/words/pieces'
import { clockWord, stageWord } from '~/parts/words/pour'
import { stepTitle } from '~/parts/words/stepTitles'
import { spanText } from '~/parts/show/time'

export interface NextThing {
  stage: string
  /** The next thing to do, a few words. */
  doing: string
  /** Its clock, ready to read; empty where the caster sets the pace. */
  time: string
  late: boolean
}

/**
 * What a pour wants next, in words: the bench's line and the hero's headline.
 * @param isLearning what was seen of it is still being worked out: no time is said yet.
 */
export function nextThing(facts: PourOutlook, view: PourView, nowMs: number, isLearning = false): NextThing {
  const stage = stageWord(view.stage, facts.plan)
  if (!facts.next) {
    return { stage, doing: facts.verdict ? verdictText(facts.pieces) : '', time: '', late: false }
  }
  if (view.pastWorking) {
    return { stage, doing: 'Past its working time: say what happened', time: '', late: true }
  }
  if (isLearning) return { stage, doing: 'Working out when it is ready', time: '…', late: false }
  if (!view.clock) {
    const bowl = facts.batches.length > 1 && view.stage !== 'mould' ? `, bowl ${facts.batch + 1}` : ''
    return { stage, doing: `${stepTitle(facts.next, facts.plan)}${bowl}`, time: '', late: false }
  }
  const leftMs = view.clock.dueMs - nowMs
  // Less than a second left is none.
  const late = leftMs < 1000
  if (view.clock.id === 'work_end') {
    return { stage, doing: late ? 'Pour: it may be thickening' : 'Pour within', time: spanText(leftMs), late }
  }
  const what = clockWord(view.clock.id, facts.plan)
  if (!late) return { stage, doing: `${what} in`, time: spanText(leftMs), late }
  return { stage, doing: what, time: leftMs > -MS_PER.min ? 'now' : `${spanText(leftMs)} ago`, late }
}
