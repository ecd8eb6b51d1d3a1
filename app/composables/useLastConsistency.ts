import { watchDebounced } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import type { PourPlan } from '#core/pour'
import { isUnreadable, type Page, type PourAnswer } from '~~/shared/records'
import { callApi } from '~/composables/useApi'
import { usePours } from '~/stores/pours'

/** A set is known by its first mould. */
const mouldOf = ({ mould }: PourPlan) => mould.members?.[0]?.name ?? mould.name
const jobOf = (plan: PourPlan) => `${mouldOf(plan)}\n${plan.plaster.name}`

/** At what consistency this mould was last really mixed with this plaster; undefined where it never was. */
export function useLastConsistency(plan: Ref<PourPlan | undefined>): Ref<number | undefined> {
  const last = ref<number>()
  const pours = usePours()
  const job = computed(() => plan.value && jobOf(plan.value))
  watchDebounced(
    job,
    async () => {
      const wanted = plan.value
      last.value = undefined
      if (!wanted) return
      const answer = await callApi<Page<PourAnswer>>('/api/pours', {
        query: { q: mouldOf(wanted).slice(0, 100), limit: 30 },
      })
      if (!answer.ok || job.value !== jobOf(wanted)) return
      for (const record of answer.value.items) {
        if (isUnreadable(record) || jobOf(record.plan) !== jobOf(wanted)) continue
        last.value = pours.factsOf(record)?.actual?.consistency
        if (last.value !== undefined) return
      }
    },
    { debounce: 400, immediate: true },
  )
  return last
}
