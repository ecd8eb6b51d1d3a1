import { settingLook, siftingLook, soakingLook, stirringLook, type BowlLook } from '../mix'
import { clockOfStep } from './clocks'
import { classValuesOf } from './plan/mix/classValues'
import type { PourOutlook } from './outlook'
import { stageOf } from './plan/steps'

/**
 * What the bowl in hand should look like, from its water to when it can no longer be poured. Undefined where nothing is to
 * be seen of it: before its water, in a shut bag, once it is in the mould.
 */
export function bowlLook(facts: PourOutlook, nowMs: number): BowlLook | undefined {
  const { plan, next, inHand, settingStartMs, setting, doneAtMs } = facts
  if (!next || plan.addingWay === 'kneaded') return undefined
  const stage = stageOf(next)
  // How a bed with filler packs nobody here knows.
  if (classValuesOf(plan).fillerRatio > 0 && (stage === 'sift' || stage === 'soak')) return undefined
  const clock = clockOfStep(facts)
  const share = clock ? (nowMs - clock.startMs) / Math.max(1, clock.dueMs - clock.startMs) : 0
  const { waterG, powderG } = { ...inHand.planned, ...inHand.actual }
  const bowl = { classId: plan.plaster.properties.classId, waterG, powderG }
  switch (stage) {
    case 'sift':
      return siftingLook(bowl, next.id === 'sift' ? Math.min(1, Math.max(0, share)) : 0)
    case 'soak':
      return soakingLook(bowl, share)
    case 'stir':
      return stirringLook(share)
    case 'pour': {
      if (settingStartMs === undefined || doneAtMs.pour !== undefined) return undefined
      const at = (ms: number) => (ms - settingStartMs) / 1000
      const { work_end: work, initial_set: initial } = setting.timeS
      return settingLook(bowl, at(nowMs), {
        stirred: doneAtMs.stir === undefined ? 0 : at(doneAtMs.stir),
        workEnd: work.mid,
        initialSet: initial.mid,
      })
    }
    case 'mould':
    case 'weigh':
    case 'set':
    case 'demould':
    case 'dry':
      return undefined
  }
}
