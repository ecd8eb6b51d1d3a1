<script setup lang="ts">
/** What goes in besides plaster and water. Usage: <AdditionsFields v-model="additions" @problem="note" /> */
import { figure } from '~/parts/show/figures'
import { X } from '@lucide/vue'
import { computed } from 'vue'
import {
  ADDITIONS,
  ADDITION_IDS,
  LEAST_ADDITION_PCT,
  timingOf,
  type Addition,
  type AdditionId,
} from '#core/plaster'
import { ADDITION_WORDS } from '~/parts/words/mix'

const additions = defineModel<Addition[]>({ required: true })
const emit = defineEmits<{ problem: [field: string, message: string] }>()

/** A first figure to change: what the trade usually starts from (common practice, no source). */
const FIRST_PCT: Record<AdditionId, number> = {
  silica: 100,
  sand: 50,
  fibre: 0.5,
  pigment: 2,
  acrylic: 10,
  liquid_paint: 3,
  salt: 1,
  potassium_sulfate: 1,
  set_gypsum: 0.5,
  borax: 0.5,
  citric_acid: 0.05,
  gelatine: 0.1,
}
const free = computed(() =>
  ADDITION_IDS.filter((id) => !additions.value.some((a) => a.id === id)).map((value) => ({
    value,
    label: ADDITION_WORDS[value].name,
  })),
)
function timeWords(a: Addition): string {
  const range = timingOf(a)
  if (!range) return ''
  const [low, mid, high] = [range.low, range.mid, range.high].map((x) => figure(x, x < 1.5 ? 2 : 1))
  return `; setting time × ${mid} (${low}–${high})`
}
function add(id: AdditionId) {
  additions.value = [...additions.value, { id, pct: FIRST_PCT[id] }]
}
function change(id: AdditionId, pct: number | undefined) {
  if (pct !== undefined) additions.value = additions.value.map((a) => (a.id === id ? { id, pct } : a))
}
function remove(id: AdditionId) {
  emit('problem', `addition-${id}`, '')
  additions.value = additions.value.filter((a) => a.id !== id)
}
</script>

<template>
  <div class="additions">
    <div v-for="a in additions" :key="a.id" class="row">
      <QuantityField
        :model-value="a.pct"
        kind="number"
        :decimals="3"
        :label="ADDITION_WORDS[a.id].name"
        :suffix="ADDITIONS[a.id].of === 'powder' ? '% of the plaster' : '% of the water'"
        :min="LEAST_ADDITION_PCT"
        :max="ADDITIONS[a.id].maxPct"
        @update:model-value="change(a.id, $event)"
        @problem="emit('problem', `addition-${a.id}`, $event)"
      />
      <small class="soft">{{ ADDITION_WORDS[a.id].how }}{{ timeWords(a) }}</small>
      <button
        type="button"
        class="icon-button"
        :aria-label="`Leave out ${ADDITION_WORDS[a.id].name}`"
        @click="remove(a.id)"
      >
        <X :size="20" aria-hidden="true" />
      </button>
    </div>
    <LabelledSelect
      v-if="free.length > 0"
      :model-value="'' as never"
      label="Put in"
      :options="free"
      placeholder="silica, pigment, salt…"
      @update:model-value="add($event)"
    />
  </div>
</template>

<style scoped>
.additions {
  display: grid;
  gap: var(--s3);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 var(--s3);
  align-items: end;
}
.row small {
  grid-row: 2;
}
</style>
