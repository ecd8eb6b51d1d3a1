<script setup lang="ts">
import { useKept } from '~/stores/kept'
import { useMediaQuery } from '@vueuse/core'
import Button from 'primevue/button'
import { computed, ref, watch } from 'vue'
import { CAUSES, type CauseId } from '#core/finish'
import { layersOf } from '#core/mould'
import {
  decisionsOf,
  evaluatePlan,
  heeding,
  remediesFor,
  type PlanEvaluation,
  type PourPlan,
  type RemedyChange,
} from '#core/pour'
import type { Recipe } from '~~/shared/stock'
import { useUnits } from '~/parts/show/useUnits'
import { useClock } from '~/stores/bench'
import { useHeeded } from './useHeeded'
import { useLastConsistency } from './useLastConsistency'
import { useLearntOfPlan } from './useLearntOfPlan'
import { useSavePlan } from './useSavePlan'
import { usePlanStock } from './usePlanStock'
import { useWarmUp } from './useWarmUp'
import { usePlanSentence } from './usePlanSentence'
import { OPENED_WORDS, PANEL_COVERS, PLAN_VIEWS, isPart, type Opened } from './parts'
import { PLAN_PARTS, type PlanPart } from '~/parts/words/planSentence'
import { usePackSaid } from '~/parts/field/usePack'
import { timeToPour } from '~/parts/mix/pourTime'
import { useProblems } from '~/parts/form/useProblems'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { draftOf, mixDraft } from './draft/fromPlan'
import {
  fillingChoice,
  firstDraft,
  goesInLayers,
  layersChoice,
  mouldChoice,
  plasterChoice,
  printChoice,
  remedyDraft,
  setChoice,
  usualFilling,
} from './draft/choices'
import { planOf } from './draft/toPlan'
import type { PlanDraft } from './draft/planDraft'

const workshop = useWorkshop()
const pours = usePours()
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
    draft.value = { ...draftOf(record.plan, stock), deadline: record.plan.deadline ?? null }
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
// What pressed yesterday presses no more.
if ((draft.value.deadline?.leaveAtMs ?? Infinity) < useClock().nowMs()) draft.value.deadline = null
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
  const { deadline } = draft.value
  Object.assign(draft.value, { ...mixDraft(plan, stock), deadline, recipe: { recipeId, name } })
}
if (typeof route.query.mould === 'string') {
  pickMould(route.query.mould)
  const print = workshop.moulds.find((m) => m.id === route.query.mould)
  if (print?.find) Object.assign(draft.value, printChoice(print.find, usePackSaid().value, stock))
}
if (typeof route.query.set === 'string') pickSet(route.query.set)
if (typeof route.query.recipe === 'string') {
  const recipe = workshop.recipes.find((r) => r.id === route.query.recipe)
  if (recipe) useRecipe(recipe)
}

const problems = useProblems()
const unread = computed(() => !problems.none.value)

// A bag's age is told to the day: the moment the page was opened will do.
const openedMs = useClock().nowMs()
const plan = computed<PourPlan | undefined>(() => planOf(draft.value, stock, openedMs))
const warmUp = useWarmUp()
const evaluation = computed<PlanEvaluation | undefined>(() => {
  void warmUp.value
  return plan.value && evaluatePlan(plan.value)
})
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
const { said, unusual, asked } = usePlanSentence(draft, plan, stock, openedMs, problems.fields)

const opened = ref<Opened>()
/** Each editor once it was opened: what was typed in it and cannot be read yet stays typed. */
const visited = ref(new Set<PlanPart>())
function open(what: Opened) {
  opened.value = opened.value === what ? undefined : what
  if (isPart(opened.value)) visited.value.add(opened.value)
}
const isOpen = computed({
  get: () => opened.value !== undefined,
  set: (now) => {
    if (!now) opened.value = undefined
  },
})
/** What keeps both sides of a desk's screen about as tall: bowls and what is heeded make the plan's own side longer. */
const cautionsUnder = computed(
  () => draft.value.heed.length === 0 && outcome.value?.batching.batches.length === 1,
)
const remedies = computed(() =>
  plan.value && outcome.value && !unread.value ? remediesFor(plan.value, outcome.value) : [],
)
/** Out there something else says when one must go. */
const isInGround = computed(() => plan.value?.mould.kind === 'ground')
const views = computed(() =>
  PLAN_VIEWS.filter(
    (v) =>
      (v !== 'remedies' || remedies.value.length > 0) &&
      (v !== 'deadline' || isInGround.value || draft.value.deadline !== null),
  ),
)
/** Beside the sentence something always stands: what would help, where something is wrong. */
const shown = computed<Opened>(() => {
  const first = views.value[0]!
  return opened.value === undefined || (opened.value === 'remedies' && first !== 'remedies')
    ? first
    : opened.value
})
const covers = useMediaQuery(PANEL_COVERS)
function takeRemedy(change: RemedyChange) {
  Object.assign(draft.value, remedyDraft(change))
  opened.value = undefined
}
const noteIn = Object.fromEntries(
  PLAN_PARTS.map((part) => [
    part,
    (field: string, message: string) => problems.note(`${part} ${field}`, message),
  ]),
) as Record<PlanPart, (field: string, message: string) => void>

const heeded = useHeeded(draft, plan, stock, !changingId.value)
const lastConsistency = useLastConsistency(plan)
const learnt = useLearntOfPlan(draft, plan)

const { save, busy, failure } = useSavePlan({
  draft,
  plan,
  isSound: () => evaluation.value?.ok === true && !unread.value,
  isWhole: learnt.arrived,
  changing: changingId.value ? { id: changingId.value, revision: seenRevision } : undefined,
  onTaken: () => {
    heeded.forget()
    // To the rim is meant for this once.
    kept.value = { ...draft.value, piece: '', toTheRim: false, deadline: null }
  },
})
</script>

<template>
  <!-- Enter in a field is no start of a run: only its own button is. -->
  <form class="page" novalidate @submit.prevent>
    <div class="plan">
      <header>
        <h1 class="visually-hidden">{{ changingId ? 'Change the plan' : 'Plan a pour' }}</h1>
        <PlanSentence
          :said="said"
          :open="isPart(opened) ? opened : undefined"
          :unusual="unusual"
          :asked="asked"
          @open="open"
        />
      </header>
      <PlanHeed
        v-if="draft.heed.length > 0"
        :causes="draft.heed"
        :lines="heeded.lines.value"
        @leave-out="heeded.leaveOut"
        @mend="heeded.mend"
      />
      <PlanBowlNote
        v-if="plan && outcome"
        :plan="plan"
        :outcome="outcome"
        @bowl="draft.bowlId = $event"
        @rim="draft.toTheRim = $event"
      />
      <div class="act">
        <p v-if="outcome" class="brief" aria-hidden="true">
          <b>{{ units.mass(outcome.weighOut.waterG) }}</b> water ·
          <b>{{ units.mass(outcome.weighOut.powderG) }}</b> plaster
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
      <PlanResult v-if="plan && evaluation" :plan="plan" :evaluation="evaluation" :stale="unread" />
      <p v-else class="slab">Choose a mould and a plaster: the rest follows from them.</p>
      <CautionNotes v-if="plan && cautionsUnder" class="cautions" :plan="plan" />
    </div>
    <div class="notes">
      <PlanShelfNotes :draft="draft" :powder-g="outcome?.weighOut.powderG" />
      <PlanIssues v-if="plan && evaluation" :plan="plan" :evaluation="evaluation" :stale="unread" />
    </div>
    <nav class="views" aria-label="More of this plan">
      <button
        v-for="view in views"
        :key="view"
        type="button"
        class="outline-button"
        :data-part="view"
        :aria-expanded="(covers ? opened : shown) === view"
        aria-controls="plan-panel"
        @click="open(view)"
      >
        {{ OPENED_WORDS[view] }}
      </button>
    </nav>
    <PlanPanel v-model="isOpen" :title="OPENED_WORDS[shown]" :untitled="!isPart(shown)">
      <template #meanwhile>
        <p v-if="outcome">
          <b>{{ units.mass(outcome.weighOut.waterG) }}</b> water ·
          <b>{{ units.mass(outcome.weighOut.powderG) }}</b> plaster · {{ timeToPour(outcome.pourWindowS) }}
        </p>
        <p v-else>Not a plan yet.</p>
      </template>
      <PlanMould
        v-if="visited.has('mould')"
        v-show="shown === 'mould'"
        v-model="draft"
        :problem="noteIn.mould"
        @pick="pickMould"
        @pick-set="pickSet"
      />
      <PlanPlaster
        v-if="visited.has('plaster')"
        v-show="shown === 'plaster'"
        v-model="draft"
        :plan="plan"
        :water-ml="outcome?.weighOut.waterG"
        :problem="noteIn.plaster"
        @pick="pickPlaster"
      />
      <PlanMixing
        v-if="visited.has('mixing')"
        v-show="shown === 'mixing'"
        v-model="draft"
        :problem="noteIn.mixing"
      />
      <PlanSteps
        v-if="visited.has('filling')"
        v-show="shown === 'filling'"
        v-model="draft"
        :plan="plan"
        :problem="noteIn.filling"
      />
      <PlanBatches
        v-if="visited.has('bowls')"
        v-show="shown === 'bowls'"
        v-model="draft"
        :batching="outcome?.batching"
        :problem="noteIn.bowls"
      />
      <PlanWater
        v-if="visited.has('water')"
        v-show="shown === 'water'"
        v-model="draft"
        :plan="plan"
        :problem="noteIn.water"
      />
      <PlanDrying
        v-if="visited.has('drying')"
        v-show="shown === 'drying'"
        v-model="draft"
        :plan="plan"
        :problem="noteIn.drying"
      />
      <PlanRecipes
        v-if="shown === 'recipes'"
        :draft="draft"
        :plan="plan"
        :now-ms="openedMs"
        @use="useRecipe"
        @follow="draft.recipe = $event"
      />
      <PlanRemedies v-else-if="shown === 'remedies'" :remedies="remedies" @take="takeRemedy" />
      <template v-else-if="plan && outcome">
        <PlanDeadline
          v-if="shown === 'deadline'"
          v-model="draft"
          :plan="plan"
          :outcome="outcome"
          :stock="stock"
          @pick="pickPlaster"
        />
        <PlanTimes v-if="shown === 'times'" :plan="plan" :outcome="outcome" />
        <PlanBecomes v-else-if="shown === 'becomes'" :plan="plan" :outcome="outcome" />
        <section v-else-if="shown === 'schools'" class="slab" aria-label="Schools side by side">
          <CompareSchools :plan="plan" :last-consistency="lastConsistency" />
        </section>
      </template>
    </PlanPanel>
    <CautionNotes v-if="plan && !cautionsUnder" class="cautions" :plan="plan" />
  </form>
</template>

<style scoped>
.page {
  width: 100%;
  display: grid;
  grid-template: auto auto auto 1fr / minmax(0, 11fr) minmax(0, 10fr);
  grid-template-areas: 'plan notes' 'plan views' 'plan panel' 'plan cautions';
  gap: 0 var(--s5);
  align-items: start;
  padding-block: var(--s3);
}
.notes:has(*),
.views,
.page > :deep(aside) {
  margin-bottom: var(--s3);
}
.plan {
  grid-area: plan;
}
.notes {
  grid-area: notes;
}
.page > .cautions {
  grid-area: cautions;
}
.plan,
.notes,
.slab {
  display: grid;
  gap: var(--s2);
  align-content: start;
}
.act {
  display: grid;
  gap: var(--s2);
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
.views {
  grid-area: views;
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.views [aria-expanded='true'] {
  background: var(--ink);
  color: var(--plaster);
}
@media (min-width: 60.01rem) {
  /* All of them in one row. */
  .views {
    gap: var(--s1);
  }
  .views .outline-button {
    padding-inline: 0.42rem;
    font-size: 0.92rem;
  }
  .page > :deep(aside > .slab) {
    padding: var(--s3) var(--s4);
  }
}
@media (max-width: 60rem) {
  /* One column in the order of the job: what is wrong before what starts it. */
  .page {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    gap: var(--s2);
  }
  .plan {
    display: contents;
  }
  .notes {
    order: -1;
  }
  header {
    order: -2;
  }
  .cautions {
    order: 1;
  }
  .views {
    order: 2;
  }
  /* It keeps to the top: there it covers nothing that was not passed already. */
  .act {
    position: sticky;
    top: 0;
    z-index: 2;
    padding: var(--s2) 0;
    background: var(--chalk);
    grid-template-columns: 1fr auto;
    align-items: center;
  }
  .brief {
    display: block;
  }
}
</style>
