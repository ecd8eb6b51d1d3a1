import { watch, type Ref } from 'vue'
import type { PourPlan } from '#core/pour'
import { useLearning } from '~/stores/learning'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import type { PlanDraft } from './draft/planDraft'

/** Asks for what was learnt of what is chosen, and of the bags before this one. */
export function useLearntOfPlan(draft: Ref<PlanDraft>, plan: Ref<PourPlan | undefined>) {
  const workshop = useWorkshop()
  const pours = usePours()
  const learning = useLearning()
  let arriving: Promise<unknown> = Promise.resolve()
  watch(
    () => {
      const { plasterKey, bagId, dryingPlaceId, ratioMethod } = draft.value
      const bowlId = plan.value?.batching?.bowl?.bowlId
      return [
        ...workshop.bags.filter((b) => b.plasterId === plasterKey).map((b) => `bag:${b.id}` as const),
        ...(bagId && ratioMethod === 'by_volume' ? [`scoop:${bagId}` as const] : []),
        ...(dryingPlaceId ? [`place:${dryingPlaceId}` as const] : []),
        ...(ratioMethod === 'by_eye' && pours.hand ? [`person:${pours.hand}` as const] : []),
        ...(bowlId ? [`bowl:${bowlId}` as const] : []),
      ]
    },
    (subjects) => {
      const unknown = subjects.filter((s) => !learning.known.has(s))
      arriving = Promise.all([arriving, ...unknown.map((s) => learning.load(s))])
    },
    { immediate: true },
  )
  return {
    /** Resolves when all that is asked for has come, or cannot be had. */
    arrived: () => arriving,
  }
}
