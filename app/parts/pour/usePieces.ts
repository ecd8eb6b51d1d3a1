import { computed, ref, watch, type ComputedRef } from 'vue'
import type { PieceFacts } from '#core/pour'

/**
 * Which of several casts something is about to be said of: all that may be meant, until somebody chooses. `said` is what an
 * event carries: nothing where it is all of them.
 */
export function usePieces(among: ComputedRef<readonly PieceFacts[]>) {
  const numbers = computed(() => among.value.map((p) => p.number))
  const chosen = ref<number[]>([])
  watch(
    () => numbers.value.join(),
    () => (chosen.value = [...numbers.value]),
    { immediate: true },
  )
  const isAll = computed(() => chosen.value.length === numbers.value.length)
  const said = computed<{ pieces?: number[] }>(() => (isAll.value ? {} : { pieces: [...chosen.value] }))
  return { chosen, said, isAll, none: computed(() => chosen.value.length === 0) }
}
