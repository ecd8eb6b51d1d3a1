<script setup lang="ts">
/**
 * How the job is cut into bowls. Usage: <PlanBatches v-model="draft" :batching :problem="noteProblem" />
 */
import { Plus, X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import type { BatchPlan } from '#core/mix'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { counted } from '~/parts/show/counted'
import { BECAUSE_WORDS } from '~/parts/words/mix'
import type { PlanDraft } from '../draft/planDraft'

const props = defineProps<{
  batching: BatchPlan | undefined
  problem: (field: string, message: string) => void
}>()
const draft = defineModel<PlanDraft>({ required: true })
const workshop = useWorkshop()
const units = useUnits()

/** A list shows nothing for an empty value. */
const ANY = 'any'
const bowlOptions = computed(() => [
  { value: ANY, label: 'Whichever is large enough' },
  ...workshop.bowls.map((b) => ({ value: b.id, label: `${b.name}, ${units.volume(b.volumeMl)}` })),
])
const SPLITS = [
  { value: 'need', label: 'As few as possible' },
  { value: 'bowls', label: 'So many bowls' },
  { value: 'layers', label: 'In layers' },
  { value: 'casts', label: 'Bags for casts' },
  { value: 'whole_bags', label: 'Whole bags' },
] as const
const NEXT_LAYER = ['Face coat', 'First pour', 'Second pour', 'Base', 'Bonding coat', 'Shell layer']
function addLayer() {
  const name =
    NEXT_LAYER.find((n) => !draft.value.layers.some((l) => l.name === n)) ??
    `Layer ${draft.value.layers.length + 1}`
  draft.value.layers = [...draft.value.layers, { name, sharePct: 25 }]
}
function changeLayer(i: number, change: Partial<PlanDraft['layers'][number]>) {
  draft.value.layers = draft.value.layers.map((l, at) => (at === i ? { ...l, ...change } : l))
}
function removeLayer(i: number) {
  draft.value.layers = draft.value.layers.filter((_, at) => at !== i)
}
const shares = computed(() => Math.round(draft.value.layers.reduce((sum, l) => sum + l.sharePct, 0)))
const says = computed(() => {
  const plan = props.batching
  if (!plan) return ''
  const n = plan.batches.length
  if (n <= 1) return 'One bowl'
  return `${counted(n, 'bowl')}${plan.because ? `, ${BECAUSE_WORDS[plan.because]}` : ''}`
})
</script>

<template>
  <section class="slab" aria-label="Bowls">
    <p class="soft">{{ says }}</p>
    <div class="pair">
      <LabelledSelect
        :model-value="draft.bowlId || ANY"
        label="Bowl to mix in"
        :options="bowlOptions"
        @update:model-value="draft.bowlId = $event === ANY ? '' : $event"
      />
      <QuantityField
        :model-value="draft.pourRateMlMin === 0 ? undefined : draft.pourRateMlMin"
        kind="volume"
        label="You pour, a minute, if known"
        optional
        :min="10"
        :max="100000"
        @update:model-value="draft.pourRateMlMin = $event ?? 0"
        @problem="problem('pourRate', $event)"
      />
    </div>
    <QuantityField
      v-model="draft.hands"
      kind="number"
      :decimals="0"
      label="People who sift and pour at once"
      :min="1"
      :max="6"
      @problem="problem('hands', $event)"
    />
    <LabelledPills v-model="draft.splitBy" label="Cut into" :options="SPLITS" />
    <QuantityField
      v-if="draft.splitBy === 'bowls'"
      v-model="draft.bowlCount"
      kind="number"
      :decimals="0"
      label="Bowls, at least"
      :min="1"
      :max="60"
      @problem="problem('bowlCount', $event)"
    />
    <template v-if="draft.splitBy === 'layers'">
      <div v-for="(layer, i) in draft.layers" :key="i" class="layer">
        <label class="field"
          ><span>{{ i === 0 ? 'Layer' : 'Then' }}</span>
          <InputText
            :model-value="layer.name"
            maxlength="120"
            @update:model-value="$event && changeLayer(i, { name: $event })"
        /></label>
        <QuantityField
          :model-value="layer.sharePct"
          kind="number"
          :decimals="0"
          label="Share"
          suffix="%"
          :min="1"
          :max="100"
          @update:model-value="$event !== undefined && changeLayer(i, { sharePct: $event })"
          @problem="problem(`layer${i}`, $event)"
        />
        <button
          v-if="draft.layers.length > 1"
          type="button"
          class="icon-button"
          :aria-label="`Leave out ${layer.name}`"
          @click="removeLayer(i)"
        >
          <X :size="20" aria-hidden="true" />
        </button>
      </div>
      <Button v-if="draft.layers.length < 12" severity="secondary" type="button" @click="addLayer">
        <Plus :size="18" aria-hidden="true" /> Another layer
      </Button>
      <p class="soft small">
        Each is mixed when the one before thickens, and goes on roughened plaster.
        <template v-if="shares !== 100">Together {{ shares }} %: taken in proportion.</template>
      </p>
    </template>
    <template v-else-if="draft.splitBy === 'casts'">
      <QuantityField
        v-model="draft.castsPerBag"
        kind="number"
        :decimals="0"
        label="Each bag is for"
        suffix="casts"
        :min="1"
        :max="10"
        @problem="problem('castsPerBag', $event)"
      />
      <p class="soft small">
        Powder weighed into equal bags beforehand, for the field or a class: water is measured there.
      </p>
    </template>
    <QuantityField
      v-else-if="draft.splitBy === 'whole_bags'"
      v-model="draft.bagPowderG"
      kind="mass"
      label="A whole bag holds"
      :min="50"
      :max="1000000"
      @problem="problem('bagPowder', $event)"
    />
    <p class="soft small">
      Bowls and the scale’s limit are kept in <NuxtLink to="/settings">Settings</NuxtLink>.
    </p>
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
.layer {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 7rem 44px;
  gap: var(--s3);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.field :deep(input) {
  width: 100%;
  min-width: 0;
}
</style>
