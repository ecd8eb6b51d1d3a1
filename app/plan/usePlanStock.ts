import { storeToRefs } from 'pinia'
import { reactive } from 'vue'
import { useLearning } from '~/stores/learning'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import type { Stock } from './draft/planDraft'

/** What there is to plan with, as it stands at each look. */
export function usePlanStock(): Stock {
  const { plasters, bags, moulds, mouldSets, bowls, places, settings } = storeToRefs(useWorkshop())
  const { hand } = storeToRefs(usePours())
  const { seenOf } = useLearning()
  return reactive({ plasters, bags, moulds, mouldSets, bowls, places, settings, hand, seenOf })
}
