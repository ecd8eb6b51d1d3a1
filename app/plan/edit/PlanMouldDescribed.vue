<script setup lang="ts">
/**
 * A mould described on the spot, which may be kept on the shelf in one step.
 * Usage: <PlanMouldDescribed v-model="draft.described" @kept="…" @problem="…" />
 */
import { newId } from '~~/shared/newId'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { describeCavity, describedThicknessMm } from '#core/mould'
import { mouldInputOf, thicknessOf, wayBrings, type MouldDraft } from '~/parts/mould/mouldDraft'
import { ERROR_WORDS } from '~/parts/words/errors'
import { PURPOSE_WORDS } from '~/parts/words/mould'
import { useWorkshop } from '~/stores/workshop'
import type { MouldCard } from '~~/shared/moulds'

const mould = defineModel<MouldDraft>({ required: true })
const emit = defineEmits<{ kept: [card: MouldCard]; problem: [field: string, message: string] }>()
const workshop = useWorkshop()

const purposes = Object.entries(PURPOSE_WORDS).map(([value, label]) => ({ value, label }))
const formMm = computed(() => {
  const found = describeCavity(mould.value.volume)
  return found.ok ? describedThicknessMm(mould.value.volume, found.finding) : undefined
})
function typeThickness(mm: number | undefined) {
  if (mm === undefined) return
  mould.value.thicknessMm = mm
  mould.value.thicknessTyped = true
}

const keeping = ref('')
const busy = ref(false)
/** One step: on the shelf it goes, and the plan goes on from there. */
async function keep() {
  const input = mouldInputOf(mould.value)
  keeping.value = ''
  if (input.name === '') {
    keeping.value = 'Give it a name first.'
    return
  }
  busy.value = true
  const answer = await workshop.saveMould(newId(), null, input)
  busy.value = false
  if (!answer.ok) {
    keeping.value = ERROR_WORDS[answer.failure.code]
    return
  }
  emit('kept', answer.value)
}
</script>

<template>
  <VolumeHelper
    v-model="mould.volume"
    :material="mould.facts.material"
    @problem="(field, message) => emit('problem', field, message)"
    @way="Object.assign(mould, wayBrings(mould, $event))"
  />
  <MouldFactsFields v-model="mould.facts" />
  <div class="pair">
    <LabelledSelect v-model="mould.purpose" label="What the piece is" :options="purposes as never" />
    <QuantityField
      :model-value="thicknessOf(mould)"
      kind="length"
      :label="
        mould.thicknessTyped || formMm === undefined ? 'Thickness of the piece' : 'Dries like a slab of'
      "
      :min="1"
      :max="500"
      @update:model-value="typeThickness"
      @problem="emit('problem', 'thickness', $event)"
    />
  </div>
  <div class="keep">
    <label class="field"
      ><span>Keep the mould as</span>
      <InputText v-model="mould.name" placeholder="a name for the mould" maxlength="120" autocomplete="off" />
    </label>
    <Button label="Keep it on the shelf" severity="secondary" :disabled="busy" @click="keep" />
  </div>
  <p v-if="keeping" class="failure" role="alert">{{ keeping }}</p>
</template>

<style scoped>
.keep {
  display: grid;
  gap: var(--s3);
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
</style>
