import { newId as makeId } from '~~/shared/newId'
import { promiseTimeout } from '@vueuse/core'
import { nextTick, ref, type Ref } from 'vue'
import { takePlan, type PourPlan } from '#core/pour'
import { bagInputOf } from '~/parts/plaster/plasterChoice'
import { failureWords } from '~/parts/words/errors'
import type { ApiResult } from '~/stores/api'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import type { PourRecord } from '~~/shared/records'
import type { PlanDraft } from './draft/planDraft'

/** Longer nobody stands before a button; the workshop may be away. */
const LONGEST_WAIT_MS = 3000

/** Takes a worksheet to the bench, or keeps what was changed of one that is there. */
export function useSavePlan({
  draft,
  plan,
  isSound,
  isWhole,
  changing,
  onTaken,
}: {
  draft: Ref<PlanDraft>
  plan: Ref<PourPlan | undefined>
  isSound: () => boolean
  /** Until what the workshop has learnt of its bag, bowl and place has come, or cannot be had. */
  isWhole: () => Promise<unknown>
  /** The pour whose plan is changed, and the revision that was seen of it. */
  changing: { id: string; revision: Ref<number> } | undefined
  onTaken: () => void
}) {
  const workshop = useWorkshop()
  const pours = usePours()
  const router = useRouter()
  const failure = ref('')
  const busy = ref(false)
  // Made once for this worksheet: if the answer gets lost and it is sent again, it is still one pour.
  const newId = makeId()

  /** One weighed scoop is remembered for its bag. */
  async function rememberScoop() {
    const { scoop, bagId, ratioMethod } = draft.value
    const bag = workshop.bags.find((b) => b.id === bagId)
    const { weighedKgM3 } = scoop
    if (!bag || ratioMethod !== 'by_volume' || weighedKgM3 === null) return
    if (bag.scoop?.weighedKgM3 === weighedKgM3 && bag.scoop.measureMl === scoop.measureMl) return
    await workshop.saveBag(bag.id, bag.revision, { ...bagInputOf(bag), scoop: { ...scoop, weighedKgM3 } })
  }

  /** The cup it was measured with is asked for once. */
  async function rememberCup() {
    const { scoop, ratioMethod } = draft.value
    // An earlier plan that is changed had its own: that is not the cup of today.
    if (changing || ratioMethod !== 'by_volume' || scoop.measureMl === workshop.settings.scoopMl) return
    await workshop.rememberSettings({ scoopMl: scoop.measureMl })
  }

  async function save() {
    if (!plan.value || !isSound() || busy.value) return
    busy.value = true
    failure.value = ''
    // Taken sooner it would go without what was learnt, and nobody would know.
    await Promise.race([isWhole(), promiseTimeout(LONGEST_WAIT_MS)])
    await nextTick()
    if (!plan.value || !isSound()) {
      busy.value = false
      return
    }
    const answer: ApiResult<PourRecord> = changing
      ? await pours.changePlan(changing.id, changing.revision.value, takePlan(plan.value))
      : await pours.create(takePlan(plan.value), newId)
    if (answer.ok) await Promise.all([rememberScoop(), rememberCup()])
    busy.value = false
    if (answer.ok) {
      if (!changing) onTaken()
      await router.push(`/pour/${answer.value.id}`)
      return
    }
    failure.value = failureWords(answer.failure)
    if (answer.failure.code === 'stale_plan' && changing) {
      await pours.load(changing.id)
      changing.revision.value = pours.records.get(changing.id)?.revision ?? changing.revision.value
    }
  }

  return { save, busy, failure }
}
