<script setup lang="ts">
/**
 * The worksheet's plaster: which, out of which bag, with what in it, and how wet.
 * Usage: <PlanPlaster v-model="draft" :plan :water-ml :powder-g :problem="noteProblem" @pick="pickPlaster" />
 */
import { computed } from 'vue'
import { PLASTER_CLASS_IDS, type Addition } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import { wantsSpoonTest } from '#core/stock'
import { useNow } from '~/stores/bench'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { additionsChoice, scoopOfBag, type PlanDraft } from './planDraft'
import { bagStateOf, bagsOf, doubtOf } from '~/parts/plaster/plasterChoice'
import { plain } from '~/parts/show/figures'
import { ADDITION_WORDS } from '~/parts/words/mix'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

const props = defineProps<{
  plan: PourPlan | undefined
  waterMl: number | undefined
  /** Plaster of the whole job, g. */
  powderG: number | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ pick: [plasterKey: string] }>()
const workshop = useWorkshop()
const units = useUnits()
const now = useNow()

const plasterOptions = computed(() => [
  ...workshop.plasters.map((p) => ({ value: p.id, label: p.name })),
  ...PLASTER_CLASS_IDS.map((id) => ({ value: `class:${id}`, label: PLASTER_CLASS_WORDS[id] })),
])
/** A list shows nothing for an empty value. */
const NO_BAG = 'none'
const bags = computed(() => bagsOf(draft.value.plasterKey, workshop.bags))
const bagOptions = computed(() => [
  { value: NO_BAG, label: 'No bag in particular' },
  ...bags.value.map((b) => ({ value: b.id, label: `${b.name}, ${units.roughMass(b.leftG)} left` })),
])
const bag = computed(() => bags.value.find((b) => b.id === draft.value.bagId))
function pickBag(id: string) {
  draft.value.bagId = id === NO_BAG ? '' : id
  draft.value.scoop = scoopOfBag(bags.value.find((b) => b.id === id)?.scoop ?? null)
}
/** How much more than the bag holds still counts as slightly: then it is worth making do (common practice). */
const SLIGHTLY = 1.12
const runsOut = computed(() => {
  const [leftG, wantedG] = [bag.value?.leftG ?? Infinity, props.powderG ?? 0]
  if (wantedG <= leftG) return ''
  const says = `${units.roughMass(leftG)} is left in it, this job wants ${units.roughMass(wantedG)}`
  return wantedG <= SLIGHTLY * leftG
    ? `${says}: less spare, or a little more water, saves opening another.`
    : `${says}: another bag is needed.`
})
const doubt = computed(() => (bag.value ? doubtOf(bag.value, now.value) : 'none'))
const untested = computed(
  () => bag.value && wantsSpoonTest(bagStateOf(bag.value, now.value), bag.value.spoonTests.length),
)
const changeAdditions = (additions: Addition[]) =>
  Object.assign(draft.value, additionsChoice(draft.value, additions, workshop))
const inIt = computed(() =>
  draft.value.additions.map((a) => `${ADDITION_WORDS[a.id].name.toLowerCase()} ${plain(a.pct)} %`).join(', '),
)
</script>

<template>
  <section class="slab" aria-labelledby="plan-plaster">
    <h2 id="plan-plaster">Plaster</h2>
    <div class="which">
      <LabelledSelect
        :model-value="draft.plasterKey"
        label="Which plaster"
        :options="plasterOptions"
        @update:model-value="emit('pick', $event)"
      />
      <LabelledSelect
        v-if="bags.length > 0"
        :model-value="bag?.id ?? NO_BAG"
        label="Out of which bag"
        :options="bagOptions"
        @update:model-value="pickBag"
      />
    </div>
    <p v-if="runsOut" class="doubt" role="status">{{ runsOut }}</p>
    <p v-if="doubt !== 'none'" class="doubt" role="status">
      {{ doubt === 'damp' ? 'This bag is or was damp' : 'This bag has been open long' }}: it may set slow or
      fast, so the times below are wider.
      <NuxtLink v-if="untested" :to="{ path: '/plasters', query: { bag: draft.bagId } }"
        >Try a spoonful first</NuxtLink
      >
    </p>
    <details>
      <summary>
        What else goes in<span v-if="inIt" class="soft">: {{ inIt }}</span>
      </summary>
      <AdditionsFields
        class="folded"
        :model-value="draft.additions"
        @update:model-value="changeAdditions"
        @problem="problem"
      />
    </details>
    <ConsistencyField v-if="plan" v-model="draft" :plan="plan" :water-ml="waterMl" @problem="problem" />
    <PlasterSources v-if="plan" :plaster="plan.plaster" />
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
.which {
  display: grid;
  gap: var(--s3);
}
.doubt {
  background: var(--warm-light);
  border-left: 6px solid var(--warm);
  border-radius: 0.5rem;
  padding: var(--s1) var(--s3);
}
summary {
  cursor: pointer;
  font-weight: 600;
  min-height: 44px;
  padding-top: var(--s2);
}
.folded {
  padding: var(--s2) 0;
}
</style>
