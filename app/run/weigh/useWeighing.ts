import { useIntervalFn } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import type { ReadingRef, StepId } from '#core/pour'
import { elapsedMs } from '~/stores/clock'
import { isWeighStep } from '../knock/advance'
import type { useBowlScale } from './useBowlScale'
import { NOT_YET, watchWeighing, weighPhaseOf } from './weighStep'

/** What a knock does where something is to be weighed. */
export type WeighKnock =
  | { does: 'record'; massG: number; from?: { reading?: ReadingRef } }
  | { does: 'zero' }
  /** Nothing: it is not there yet, or cannot be read. */
  | { does: 'wait' }

/**
 * One weighing: what is to be weighed, what a scale says of it, what was typed. What was typed stands, whatever a scale
 * says; a scale's figure is taken only where it is stable.
 */
export function useWeighing(
  step: () => StepId | undefined,
  batch: () => number | undefined,
  targetG: () => number | undefined,
  divisionG: () => number,
  scale: ReturnType<typeof useBowlScale>,
) {
  /** A bowl comes to rest in real time, however fast the bench goes. */
  const now = ref(elapsedMs())
  useIntervalFn(() => (now.value = elapsedMs()), 250)
  const typedG = ref<number>()
  const isTyped = ref(false)
  const problem = ref('')
  const seen = shallowRef(NOT_YET)
  const keyNow = () => `${step()} ${batch()}`
  /** The step that the scale was zeroed for last. */
  let zeroedAt: string | undefined
  watch([step, batch], () => {
    typedG.value = undefined
    isTyped.value = false
    problem.value = ''
    // Taken back to where it was zeroed, the weighing goes on: what lies there is still what went in.
    seen.value = zeroedAt === keyNow() ? { ...NOT_YET, zeroed: true } : NOT_YET
  })
  watch(scale.key, () => {
    zeroedAt = undefined
    seen.value = NOT_YET
  })
  watch([scale.says, now], ([says, nowMs]) => {
    const target = targetG()
    if (target === undefined) return
    seen.value = watchWeighing(seen.value, says, target, divisionG(), nowMs)
    if (seen.value.zeroed) zeroedAt = keyNow()
  })
  const phase = computed(() => {
    const target = targetG()
    return target === undefined || isTyped.value
      ? undefined
      : weighPhaseOf(seen.value, scale.says.value, target, divisionG(), now.value)
  })

  /** In the field: what was typed, else what the scale stands at, else what is wanted. */
  const massG = computed({
    get: () => {
      if (isTyped.value) return typedG.value
      if (!scale.says.value) return targetG()
      return phase.value?.phase === 'enough' ? scale.says.value.massG! : undefined
    },
    set: (typed) => {
      typedG.value = typed
      isTyped.value = true
    },
  })
  function zero() {
    seen.value = { ...NOT_YET, zeroAsked: true }
    scale.zero()
  }
  function typeInstead() {
    isTyped.value = true
  }
  function followScale() {
    isTyped.value = false
    problem.value = ''
  }

  function knock(): WeighKnock {
    if (isTyped.value || !phase.value)
      return massG.value === undefined || problem.value
        ? { does: 'wait' }
        : { does: 'record', massG: massG.value }
    if (phase.value.phase === 'zero') return { does: 'zero' }
    const says = scale.says.value!
    return phase.value.phase === 'enough'
      ? { does: 'record', massG: says.massG!, from: scale.cite(says) }
      : { does: 'wait' }
  }

  return {
    massG,
    isTyped,
    problem,
    phase,
    zero,
    typeInstead,
    followScale,
    knock,
    isNow: computed(() => isWeighStep(step())),
  }
}
