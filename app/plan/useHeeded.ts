import { useKept } from '~/stores/kept'
import { computed, ref, watch, type Ref } from 'vue'
import type { CauseId } from '#core/finish'
import { heedSubjects, heeding, type PourPlan } from '#core/pour'
import { useHeeds } from '~/stores/heeds'
import { mixDraft } from './draft/fromPlan'
import { type PlanDraft, type Stock } from './draft/planDraft'

type Field = keyof PlanDraft
type Moved = Record<string, { before: unknown; after: unknown }>

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)

/**
 * What was learnt of the plan's moulds, recipe or bag is heeded by itself: each cause that stays with one of them is put into
 * the worksheet, with the figures it moves, and goes out of it again with them.
 * @param isNew whether the plan is one that is being made: one that was taken to the bench stays as it was decided.
 */
export function useHeeded(
  draft: Ref<PlanDraft>,
  plan: Ref<PourPlan | undefined>,
  stock: Stock,
  isNew: boolean,
) {
  const heeds = useHeeds()
  /** What each cause has moved, to be moved back; a half-filled worksheet outlives a reload. */
  const moved = useKept<Partial<Record<CauseId, Moved>>>('nine-ripples.plan-heeded.1', {})
  /** Left out of this one plan. */
  const setAside = ref<CauseId[]>([])

  const lines = computed(() => (plan.value && isNew ? heeds.of(heedSubjects(plan.value)) : []))
  const causes = computed(() => [...new Set(lines.value.map((l) => l.cause))])

  function putIn(cause: CauseId) {
    if (!plan.value) return
    const [now, then] = [plan.value, heeding(plan.value, [cause])].map((p) => mixDraft(p, stock))
    const changes: Moved = {}
    for (const field of Object.keys(then!) as (keyof typeof then & Field)[]) {
      if (field === 'heed' || same(now![field], then![field])) continue
      changes[field] = { before: draft.value[field], after: then![field] }
      Object.assign(draft.value, { [field]: then![field] })
    }
    draft.value.heed = [...draft.value.heed, cause]
    moved.value = { ...moved.value, [cause]: changes }
  }
  /** What was moved and not touched since goes back to where it was. */
  function takeOut(cause: CauseId) {
    for (const [field, change] of Object.entries(moved.value[cause] ?? {}))
      if (same(draft.value[field as Field], change.after))
        Object.assign(draft.value, { [field]: change.before })
    draft.value.heed = draft.value.heed.filter((c) => c !== cause)
    moved.value = Object.fromEntries(Object.entries(moved.value).filter(([c]) => c !== cause))
  }

  watch(
    [causes, () => heeds.loaded],
    ([now, isKnown]) => {
      if (!isNew || !isKnown) return
      for (const cause of Object.keys(moved.value) as CauseId[]) if (!now.includes(cause)) takeOut(cause)
      for (const cause of now)
        if (!draft.value.heed.includes(cause) && !setAside.value.includes(cause)) putIn(cause)
    },
    { immediate: true },
  )

  function leaveOut(cause: CauseId) {
    setAside.value = [...setAside.value, cause]
    takeOut(cause)
  }
  function mend(cause: CauseId) {
    const those = lines.value.filter((l) => l.cause === cause)
    takeOut(cause)
    void heeds.mend(those)
  }
  /** For the next plan: everything that was put in is out again. */
  function forget() {
    for (const cause of [...draft.value.heed]) takeOut(cause)
  }

  return { lines, leaveOut, mend, forget }
}
