<script setup lang="ts">
import { useKept } from '~/stores/kept'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { CAUSES, type CauseId } from '#core/finish'
import { layersOf } from '#core/mould'
import { decisionsOf, evaluatePlan, heeding, type PlanEvaluation, type PourPlan } from '#core/pour'
import type { Recipe } from '~~/shared/stock'
import { useUnits } from '~/parts/show/useUnits'
import { useClock } from '~/stores/bench'
import { useHeeded } from './useHeeded'
import { useLastConsistency } from './useLastConsistency'
import { useSavePlan } from './useSavePlan'
import { usePlanStock } from './usePlanStock'
import { useProblems } from '~/parts/form/useProblems'
import { useLearning } from '~/stores/learning'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import {
  draftOf,
  fillingChoice,
  firstDraft,
  goesInLayers,
  layersChoice,
  mixDraft,
  mouldChoice,
  planOf,
  plasterChoice,
  remedyDraft,
  setChoice,
  usualFilling,
  type PlanDraft,
} from './planDraft'

const workshop = useWorkshop()
const pours = usePours()
const learning = useLearning()
const units = useUnits()
const route = useRoute()

const stock = usePlanStock()

/** Set when an existing pour's plan is being changed. */
const changingId = computed(() => (typeof route.query.pour === 'string' ? route.query.pour : undefined))
const seenRevision = ref(0)

// The shell loads it, and the stream brings what changes: asked again beside it, an older list could come last.
await workshop.ready
// Survives a reload or a closed lid: a half-filled worksheet is work too.
const kept = useKept<PlanDraft>('nine-ripples.plan-draft.5', firstDraft(stock), {
  mergeDefaults: true,
})
const draft = ref<PlanDraft>({ ...kept.value })
if (changingId.value) {
  await pours.load(changingId.value)
  const record = pours.records.get(changingId.value)
  if (record) {
    seenRevision.value = record.revision
    draft.value = draftOf(record.plan, stock)
  }
}
/** Another one like that pour, with what went wrong put right. */
const fromId = typeof route.query.from === 'string' ? route.query.from : undefined
if (fromId) {
  await pours.load(fromId)
  const record = pours.records.get(fromId)
  const asked = typeof route.query.heed === 'string' ? route.query.heed.split(',') : []
  const causes = asked.filter((c): c is CauseId => (CAUSES as readonly string[]).includes(c))
  if (record) draft.value = draftOf(heeding(decisionsOf(record.plan), causes), stock)
}
// What was kept may point at a shelf that is empty by now.
const { source } = draft.value
if (
  (source === 'shelf' && workshop.moulds.length === 0) ||
  (source === 'set' && workshop.mouldSets.length === 0)
)
  draft.value.source = 'describe'
watch(draft, (now) => (changingId.value ? undefined : (kept.value = { ...now })), { deep: true })

function pickMould(id: string) {
  const mould = workshop.moulds.find((m) => m.id === id)
  if (mould) Object.assign(draft.value, mouldChoice(mould, stock))
}
function pickSet(id: string) {
  const set = workshop.mouldSets.find((s) => s.id === id)
  if (set) Object.assign(draft.value, setChoice(set, stock))
}
function pickPlaster(key: string) {
  Object.assign(draft.value, plasterChoice(key, stock))
}
/** A recipe is everything but the mould: it is scaled to the one on the worksheet. */
function useRecipe({ id: recipeId, name, plan }: Recipe) {
  Object.assign(draft.value, { ...mixDraft(plan, stock), recipe: { recipeId, name } })
}
if (typeof route.query.mould === 'string') pickMould(route.query.mould)
if (typeof route.query.set === 'string') pickSet(route.query.set)
if (typeof route.query.recipe === 'string') {
  const recipe = workshop.recipes.find((r) => r.id === route.query.recipe)
  if (recipe) useRecipe(recipe)
}

const { note: noteProblem, clear: forgetProblems, none: readable } = useProblems()
// A field that is no longer on the page cannot stand in the way.
watch(
  () => [draft.value.source, draft.value.ratioMethod, draft.value.splitBy, draft.value.waterFrom],
  () => forgetProblems(),
)
const unread = computed(() => !readable.value)

// A bag's age is told to the day: the moment the page was opened will do.
const openedMs = useClock().nowMs()
const plan = computed<PourPlan | undefined>(() => planOf(draft.value, stock, openedMs))
const evaluation = computed<PlanEvaluation | undefined>(() => plan.value && evaluatePlan(plan.value))
const outcome = computed(() => (evaluation.value?.ok ? evaluation.value.outcome : undefined))
// A mould has its usual way of being filled: with another mould that follows too.
watch(
  () => usualFilling(plan.value?.mould.members ?? []),
  (way) => Object.assign(draft.value, fillingChoice(way, draft.value)),
)
// A shell is built in layers: with another mould the bowls follow.
watch(
  () => Math.max(1, ...(plan.value?.mould.members ?? []).map((m) => layersOf(m.volume))),
  (layers) => {
    if (layers > 1 || !goesInLayers(draft.value.filling))
      Object.assign(draft.value, layersChoice(draft.value.splitBy, layers))
  },
)
const heeded = useHeeded(draft, plan, stock, !changingId.value)
const lastConsistency = useLastConsistency(plan)
// What was learnt of what is chosen, and of the bags before this one.
watch(
  () => {
    const { plasterKey, bagId, dryingPlaceId, ratioMethod } = draft.value
    const bowlId = plan.value?.batching?.bowl?.bowlId
    return [
      ...workshop.bags.filter((b) => b.plasterId === plasterKey).map((b) => `bag:${b.id}` as const),
      ...(bagId && ratioMethod === 'by_volume' ? [`scoop:${bagId}` as const] : []),
      ...(dryingPlaceId ? [`place:${dryingPlaceId}` as const] : []),
      ...(ratioMethod === 'by_eye' && pours.who ? [`person:${pours.who}` as const] : []),
      ...(bowlId ? [`bowl:${bowlId}` as const] : []),
    ]
  },
  (subjects) => subjects.filter((s) => !learning.known.has(s)).forEach((s) => void learning.load(s)),
  { immediate: true },
)

const { save, busy, failure } = useSavePlan({
  draft,
  plan,
  isSound: () => evaluation.value?.ok === true && !unread.value,
  changing: changingId.value ? { id: changingId.value, revision: seenRevision } : undefined,
  onTaken: () => {
    heeded.forget()
    kept.value = { ...draft.value, piece: '' }
  },
})
</script>

<template>
  <!-- Enter in a field is no start of a run: only its own button is. -->
  <form class="page" novalidate @submit.prevent>
    <div class="sheet">
      <header>
        <h1>{{ changingId ? 'Change the plan' : 'Plan a pour' }}</h1>
      </header>
      <PlanHeed
        v-if="draft.heed.length > 0"
        :causes="draft.heed"
        :lines="heeded.lines.value"
        @leave-out="heeded.leaveOut"
        @mend="heeded.mend"
      />
      <PlanMould v-model="draft" :problem="noteProblem" @pick="pickMould" @pick-set="pickSet" />
      <PlanPlaster
        v-model="draft"
        :plan="plan"
        :water-ml="outcome?.weighOut.waterG"
        :powder-g="outcome?.weighOut.powderG"
        :problem="noteProblem"
        @pick="pickPlaster"
      />
      <PlanBatches v-model="draft" :batching="outcome?.batching" :problem="noteProblem" />
      <PlanConditions v-model="draft" :plan="plan" :problem="noteProblem" />
      <PlanSteps v-model="draft" :plan="plan" :problem="noteProblem" />
      <PlanRecipes
        :draft="draft"
        :plan="plan"
        :now-ms="openedMs"
        @use="useRecipe"
        @follow="draft.recipe = $event"
      />
    </div>
    <div class="side">
      <div class="act">
        <p v-if="evaluation?.ok" class="brief" aria-hidden="true">
          <b>{{ units.mass(evaluation.outcome.weighOut.waterG) }}</b> water ·
          <b>{{ units.mass(evaluation.outcome.weighOut.powderG) }}</b> plaster
        </p>
        <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
        <Button
          type="button"
          class="go"
          :label="changingId ? 'Keep this plan' : 'Take it to the bench'"
          :disabled="!evaluation?.ok || unread || busy"
          @click="save"
        />
      </div>
      <PlanResult
        v-if="plan && evaluation"
        :plan="plan"
        :evaluation="evaluation"
        :stale="unread"
        :last-consistency="lastConsistency"
        @take="(change) => Object.assign(draft, remedyDraft(change))"
      />
      <p v-else class="slab">Choose a mould and a plaster: the rest follows from them.</p>
    </div>
  </form>
</template>

<style scoped>
.page {
  width: 100%;
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: var(--s5);
  align-items: start;
}
.sheet,
.slab {
  display: grid;
  gap: var(--s4);
}
.sheet {
  gap: var(--s3);
}
.side {
  display: grid;
  gap: var(--s3);
  align-content: start;
}
/* It keeps to the top: there it covers nothing that was not passed already. */
.act {
  display: grid;
  gap: var(--s2);
  position: sticky;
  top: 0;
  z-index: 2;
  padding: var(--s2) 0;
  background: var(--chalk);
}
.brief {
  display: none;
  font-size: 1.05rem;
  line-height: 1.2;
}
.go {
  font-size: 1.1rem;
  justify-self: stretch;
}
@media (max-width: 60rem) {
  .page {
    grid-template-columns: minmax(0, 1fr);
  }
  .side,
  .sheet {
    display: contents;
  }
  .act {
    order: -1;
    grid-template-columns: 1fr auto;
    align-items: center;
  }
  header {
    order: -2;
  }
  .brief {
    display: block;
  }
}
</style>
