import { computed, type Ref } from 'vue'
import type { PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { PLAN_PARTS, planSentence, type PlanPart, type SaidPart } from '~/parts/words/planSentence'
import { emptyDraft, type PlanDraft, type Stock } from './draft/planDraft'
import { planOf } from './draft/toPlan'
import { plasterChoice } from './draft/choices'

/** Nothing of it is this workshop's habit: each job has its own. */
const ALWAYS_ITS_OWN: ReadonlySet<PlanPart> = new Set(['mould', 'drying'])

/** The worksheet as a sentence; the last one that stood, where it does not stand at the moment. */
export function usePlanSentence(
  draft: Ref<PlanDraft>,
  plan: Ref<PourPlan | undefined>,
  stock: Stock,
  openedMs: number,
  /** Fields that cannot be read yet, each with its part before it. */
  unread: Ref<readonly string[]>,
) {
  const units = useUnits()
  /** The same job as the workshop, its bag and its mould would have it. */
  const usual = computed(() => {
    const { source, shelfId, shelfCount, setId, described, plasterKey, bagId, filling } = draft.value
    const job = { source, shelfId, shelfCount, setId, described, filling }
    const usually = { ...emptyDraft(stock.settings), ...job, ...plasterChoice(plasterKey, stock), bagId }
    return planOf(usually, stock, openedMs)
  })
  const said = computed<SaidPart[]>((before) =>
    plan.value ? planSentence(plan.value, units) : (before ?? NOTHING_YET),
  )
  const unusual = computed(() => {
    const usually = usual.value && planSentence(usual.value, units)
    const parts = said.value.filter(
      ({ part, words }, i) => !ALWAYS_ITS_OWN.has(part) && usually && usually[i]!.words !== words,
    )
    return new Set(parts.map(({ part }) => part))
  })
  const asked = computed(() => {
    const wanted = new Map<PlanPart, string>()
    if (!plan.value) wanted.set('mould', '(which mould?)')
    for (const part of PLAN_PARTS)
      if (unread.value.some((field) => field.startsWith(`${part} `))) wanted.set(part, '(cannot be read yet)')
    return wanted
  })
  return { said, unusual, asked }
}

/** Before there is a plan to say. */
const NOTHING_YET: SaidPart[] = [{ part: 'mould', before: '', words: 'A mould' }]
