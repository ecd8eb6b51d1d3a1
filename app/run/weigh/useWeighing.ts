import { useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import {
  classValuesOf,
  foldPour,
  keyOfStep,
  type KeptPlan,
  type PourEvent,
  type PourFacts,
  type ReadingRef,
  type Scoops,
} from '#core/pour'
import { inScoopsOf } from '~/parts/mix/scoop'
import { rounded } from '~/parts/show/figures'
import { elapsedMs } from '~/stores/clock'
import { isWeighStep, massToWeighG } from '../knock/advance'
import type { KnownBy } from '../knock/pressed'
import type { useBowlScale } from './useBowlScale'
import { isRight, weighPhaseOf } from './weighStep'

/** What a knock does where something is to be weighed, and by what: which of several windows knows best (`pressed.ts`). */
export type WeighKnock = { by: KnownBy } & (
  | { does: 'record'; massG: number; from?: { reading?: ReadingRef; scoops?: Scoops } }
  | { does: 'zero' }
  /** Nothing: it is not there yet, or cannot be read. */
  | { does: 'wait' }
)

/**
 * One weighing: what is to be weighed, what a scale says of it, what was typed. What was typed stands, whatever a scale
 * says; a scale's figure is taken only where it is stable.
 */
export function useWeighing(
  /** All that was recorded, sent or not: what a scale shows offline is of the step in hand here. */
  recorded: () => { plan: KeptPlan; events: readonly PourEvent[]; revision: number } | undefined,
  facts: () => PourFacts | undefined,
  scale: ReturnType<typeof useBowlScale>,
) {
  /** A bowl comes to rest in real time, however fast the bench goes. */
  const now = ref(elapsedMs())
  useIntervalFn(() => (now.value = elapsedMs()), 250)
  const typedG = ref<number>()
  const isTyped = ref(false)
  const problem = ref('')
  const keyOf = (of: PourFacts | undefined) => of?.next && keyOfStep(of.next)
  const key = computed(() => keyOf(facts()))
  const targetG = computed(() => {
    const known = facts()
    return known && massToWeighG(known.step, known)
  })
  /** Where the plan is met by scoop and no scale says anything: how many, water in the same one. */
  const scoops = computed(() => {
    const known = facts()
    if (!known || targetG.value === undefined || scale.isExpected.value) return undefined
    const { ratioMethod, scoop } = known.plan
    if (ratioMethod !== 'by_volume' || !scoop) return undefined
    if (known.step === 'weigh_water') return inScoopsOf(targetG.value, 1, scoop.measureMl)
    if (known.step !== 'weigh_powder') return undefined
    return inScoopsOf(targetG.value, classValuesOf(known.plan).bulkKgM3 / 1000, scoop.measureMl)
  })
  watch(key, () => {
    typedG.value = undefined
    isTyped.value = false
    problem.value = ''
  })

  /**
   * The step that the scale was last zeroed for: the one in hand at that moment. From what all windows know, so that all
   * say the same of one bowl, also one that was opened while it fills; and taken back to, a weighing goes on where it was.
   */
  const zeroedFor = computed(() => {
    const pour = recorded()
    const atMs = scale.says.value?.zeroedAtMs
    return pour && typeof atMs === 'number'
      ? keyOf(
          foldPour(
            pour.plan,
            pour.events.filter((e) => e.occurredAtMs <= atMs),
            pour.revision,
          ),
        )
      : undefined
  })
  const phaseAfter = (rightForMs: number) => {
    const says = scale.says.value
    if (!says || targetG.value === undefined || isTyped.value) return undefined
    const zeroed = key.value !== undefined && zeroedFor.value === key.value
    const divisionG = facts()?.plan.scaleDivisionG ?? 1
    return weighPhaseOf(says, zeroed, targetG.value, divisionG, rightForMs)
  }
  const rightSinceMs = ref<number>()
  watch([scale.says, now, key], () => {
    const phase = phaseAfter(0)
    rightSinceMs.value = phase && isRight(phase) ? (rightSinceMs.value ?? now.value) : undefined
  })
  const phase = computed(() => phaseAfter(now.value - (rightSinceMs.value ?? now.value)))

  /** There is to be a scale and it says nothing: what was wanted is then no figure of what was weighed. */
  const isSilent = computed(() => scale.isExpected.value && !scale.says.value && typedG.value === undefined)
  /** In the field: what was typed, else what the scale stands at, else what is wanted. */
  const massG = computed({
    get: () => {
      if (isTyped.value) return typedG.value
      if (isSilent.value) return undefined
      if (!scale.says.value) return targetG.value
      return phase.value?.phase === 'enough' ? scale.says.value.massG! : undefined
    },
    set: (typed) => {
      typedG.value = typed
      isTyped.value = true
    },
  })
  function typeInstead() {
    isTyped.value = true
  }
  function followScale() {
    typedG.value = undefined
    isTyped.value = false
    problem.value = ''
  }

  /** What was measured by volume is recorded as it was measured. */
  function scooped(weighedG: number): { from?: { scoops: Scoops } } {
    if (!scoops.value) return {}
    const { gPerScoop, measureMl } = scoops.value
    return { from: { scoops: { count: rounded(weighedG / gPerScoop, 2), measureMl } } }
  }
  function knock(): WeighKnock {
    if (!phase.value) {
      const by = isTyped.value ? 'typed' : isSilent.value ? 'nothing' : 'plan'
      return massG.value === undefined || problem.value
        ? { by, does: 'wait' }
        : { by, does: 'record', massG: massG.value, ...scooped(massG.value) }
    }
    const by = scale.isOwn.value ? 'own_scale' : 'scale'
    if (phase.value.phase === 'zero') return { by, does: 'zero' }
    const says = scale.says.value!
    return phase.value.phase === 'enough'
      ? { by, does: 'record', massG: says.massG!, from: scale.cite(says) }
      : { by, does: 'wait' }
  }

  return {
    targetG,
    scoops,
    massG,
    setMass: (typed: number | undefined) => (massG.value = typed),
    setProblem: (message: string) => (problem.value = message),
    isTyped,
    isExpected: scale.isExpected,
    isSilent,
    problem,
    phase,
    typeInstead,
    followScale,
    knock,
    isNow: computed(() => isWeighStep(facts()?.step)),
  }
}
