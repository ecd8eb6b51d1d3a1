import { watchDebounced } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import type { PourPlan } from '#core/pour'
import { callKept } from '~/stores/copies'

/** A set is known by its first mould; a mould or plaster that is on no shelf was never mixed before. */
function jobOf({ mould, plaster }: PourPlan): { mouldId: string; plasterId: string } | undefined {
  const mouldId = mould.members?.[0]?.mouldId
  return mouldId && plaster.plasterId ? { mouldId, plasterId: plaster.plasterId } : undefined
}

/** At what consistency this mould was last really mixed with this plaster; undefined where it never was. */
export function useLastConsistency(plan: Ref<PourPlan | undefined>): Ref<number | undefined> {
  const last = ref<number>()
  const job = computed(() => JSON.stringify(plan.value && jobOf(plan.value)))
  watchDebounced(
    job,
    async (asked) => {
      last.value = undefined
      const query = plan.value && jobOf(plan.value)
      if (!query) return
      const answer = await callKept<{ consistency: number | null }>('/api/pours/last-mixed', query)
      // An answer to an older question than the one that stands is not shown.
      if (answer.ok && job.value === asked) last.value = answer.value.consistency ?? undefined
    },
    { debounce: 400, immediate: true },
  )
  return last
}
