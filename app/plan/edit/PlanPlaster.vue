<script setup lang="ts">
/**
 * The worksheet's plaster: which, out of which bag, with what in it, and how wet.
 * Usage: <PlanPlaster v-model="draft" :plan :water-ml :problem="noteProblem" @pick="pickPlaster" />
 */
import { computed } from 'vue'
import { PLASTER_CLASS_IDS, type Addition } from '#core/plaster'
import type { PourPlan } from '#core/pour'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { additionsChoice, scoopOfBag } from '../draft/choices'
import { type PlanDraft } from '../draft/planDraft'
import { bagsOf } from '~/parts/plaster/plasterChoice'
import { plain } from '~/parts/show/figures'
import { ADDITION_WORDS } from '~/parts/words/mix'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

defineProps<{
  plan: PourPlan | undefined
  waterMl: number | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ pick: [plasterKey: string] }>()
const workshop = useWorkshop()
const units = useUnits()

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
  draft.value.scoop = scoopOfBag(bags.value.find((b) => b.id === id)?.scoop ?? null, workshop.settings)
}
const changeAdditions = (additions: Addition[]) =>
  Object.assign(draft.value, additionsChoice(draft.value, additions, workshop))
const inIt = computed(() =>
  draft.value.additions.map((a) => `${ADDITION_WORDS[a.id].name.toLowerCase()} ${plain(a.pct)} %`).join(', '),
)
</script>

<template>
  <section class="slab" aria-label="Plaster">
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
    <details>
      <summary>What else goes in<span v-if="inIt" class="soft">: {{ inIt }}</span></summary>
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
