<script setup lang="ts">
/**
 * The worksheet's first part: the mould off the shelf, by its volume or by its inside measurements.
 * Usage: <PlanMould v-model="draft" :problem="noteProblem" @pick="pickMould" />
 */
import InputText from 'primevue/inputtext'
import { computed } from 'vue'
import { MOULD_KINDS, cavityVolumeMl } from '#core/mould'
import { useUnits } from '~/composables/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { shapeOf, type CavitySource, type PlanDraft } from '~/utils/planDraft'
import { MOULD_KIND_WORDS, provenanceWords } from '~/utils/words'

defineProps<{ problem: (field: string, message: string) => void }>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ pick: [mouldId: string] }>()
const workshop = useWorkshop()
const units = useUnits()

const SOURCES: { value: CavitySource; label: string }[] = [
  { value: 'shelf', label: 'From the shelf' },
  { value: 'volume', label: 'Volume' },
  { value: 'box', label: 'Box' },
  { value: 'cylinder', label: 'Cylinder' },
  { value: 'bowl', label: 'Bowl' },
]
const sources = computed(() => SOURCES.filter((s) => s.value !== 'shelf' || workshop.moulds.length > 0))
const mouldOptions = computed(() => workshop.moulds.map((m) => ({ value: m.id, label: m.name })))
const kindOptions = MOULD_KINDS.map((value) => ({ value, label: MOULD_KIND_WORDS[value] }))
const shape = computed(() => shapeOf(draft.value))
const card = computed(() => workshop.moulds.find((m) => m.id === draft.value.shelfId))
</script>

<template>
  <section class="slab" aria-labelledby="plan-mould">
    <h2 id="plan-mould">Mould</h2>
    <label class="field"
      ><span>What will it be?</span>
      <InputText
        v-model="draft.piece"
        placeholder="a name for the piece"
        maxlength="120"
        autocomplete="off"
      />
    </label>
    <ChoicePills v-model="draft.source" label="How the volume is given" :options="sources" />
    <LabelledSelect
      v-if="draft.source === 'shelf'"
      :model-value="draft.shelfId"
      label="Which mould"
      :options="mouldOptions"
      placeholder="choose a mould"
      @update:model-value="emit('pick', $event)"
    />
    <div v-else class="pair">
      <QuantityField
        v-if="draft.source === 'volume'"
        v-model="draft.volumeMl"
        kind="volume"
        label="It holds"
        :min="1"
        :max="500000"
        @problem="problem('volume', $event)"
      />
      <QuantityField
        v-if="draft.source === 'box'"
        v-model="draft.lengthMm"
        kind="length"
        label="Length inside"
        :min="1"
        :max="5000"
        @problem="problem('length', $event)"
      />
      <QuantityField
        v-if="draft.source === 'box'"
        v-model="draft.widthMm"
        kind="length"
        label="Width inside"
        :min="1"
        :max="5000"
        @problem="problem('width', $event)"
      />
      <QuantityField
        v-if="draft.source === 'cylinder' || draft.source === 'bowl'"
        v-model="draft.diameterMm"
        kind="length"
        :label="draft.source === 'bowl' ? 'Across the rim' : 'Across inside'"
        :min="1"
        :max="5000"
        @problem="problem('diameter', $event)"
      />
      <QuantityField
        v-if="draft.source !== 'volume'"
        v-model="draft.depthMm"
        kind="length"
        label="Depth to the fill"
        :min="1"
        :max="5000"
        @problem="problem('depth', $event)"
      />
      <QuantityField
        v-if="draft.source === 'volume'"
        v-model="draft.thicknessMm"
        kind="length"
        label="Thickness of the piece"
        :min="1"
        :max="500"
        @problem="problem('thickness', $event)"
      />
      <LabelledSelect v-model="draft.kind" label="It sets against" :options="kindOptions" />
    </div>
    <p v-if="shape" class="soft">
      Holds {{ units.volume(cavityVolumeMl(shape)) }}, from its inside measurements; a tape is good to about 5
      %.
    </p>
    <p v-else-if="card && draft.source === 'shelf'" class="soft">
      Holds {{ units.volume(card.cavityMl) }}, {{ provenanceWords(card.volumeProvenance) }} ·
      {{ MOULD_KIND_WORDS[card.kind].toLowerCase() }} · {{ units.length(card.thicknessMm) }} thick
    </p>
    <QuantityField
      v-model="draft.sparePct"
      class="short"
      kind="number"
      label="Spare"
      suffix="% more than it holds"
      :min="0"
      :max="100"
      @problem="problem('spare', $event)"
    />
  </section>
</template>

<style scoped>
.slab {
  display: grid;
  gap: var(--s4);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.pair {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
}
.short {
  max-width: 18rem;
}
</style>
