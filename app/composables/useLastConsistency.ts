import { watchDebounced } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import { foldPour, type PourPlan } from '#core/pour'
import type { Page, PourRecord } from '~~/shared/contracts'
import { callApi } from '~/composables/useApi'

const sameJob = (a: PourPlan, b: PourPlan) =>
  a.plaster.name === b.plaster.name &&
  (a.mould.members?.[0]?.mouldId ?? a.mould.name) === (b.mould.members?.[0]?.mouldId ?? b.mould.name)

/** At what consistency this mould was last really mixed with this plaster; undefined where it never was. */
export function useLastConsistency(plan: Ref<PourPlan | undefined>): Ref<number | undefined> {
  const last = ref<number>()
  const job = computed(() => plan.value && `${plan.value.mould.name}\n${plan.value.plaster.name}`)
  watchDebounced(
    job,
    async () => {
      const wanted = plan.value
      last.value = undefined
      if (!wanted) return
      const answer = await callApi<Page<PourRecord>>('/api/pours', {
        query: { q: wanted.mould.name.slice(0, 100), limit: 30 },
      })
      if (!answer.ok || job.value !== `${wanted.mould.name}\n${wanted.plaster.name}`) return
      for (const record of answer.value.items) {
        if (!sameJob(record.plan, wanted)) continue
        last.value = foldPour(record.plan, record.events).actual?.consistency
        if (last.value !== undefined) return
      }
    },
    { debounce: 400, immediate: true },
  )
  return last
}
