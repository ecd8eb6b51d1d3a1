<script setup lang="ts">
/**
 * Describes a mould, new or known, with what it will do beside it.
 * Usage: <MouldEditor v-model="draft" :failure :busy :is-new @save="…" />
 */
import Button from 'primevue/button'
import Textarea from 'primevue/textarea'
import { computed, ref } from 'vue'
import { describeCavity, describedThicknessMm } from '#core/mould'
import { useWorkshop } from '~/stores/workshop'
import { thicknessOf, wayBrings, type MouldDraft } from '~/parts/mould/mouldDraft'
import { PURPOSE_WORDS } from '~/parts/words/mould'

const props = defineProps<{ failure: string; busy: boolean; isNew: boolean }>()
const draft = defineModel<MouldDraft>({ required: true })
const emit = defineEmits<{ save: [] }>()
const workshop = useWorkshop()

const purposes = Object.entries(PURPOSE_WORDS).map(([value, label]) => ({ value, label }))
const plasters = computed(() => [
  { value: '', label: 'none in particular' },
  ...workshop.plasters.map((p) => ({ value: p.id, label: p.name })),
])
const plasterClass = computed(
  () => workshop.plasters.find((p) => p.id === draft.value.usualPlasterId)?.label.classId,
)
const YES_NO = [
  { value: 'no', label: 'No' },
  { value: 'yes', label: 'Yes' },
]
const problems = ref<Record<string, string>>({})
function note(field: string, message: string) {
  problems.value[field] = message
}
const described = computed(() => describeCavity(draft.value.volume))
const formMm = computed(() =>
  described.value.ok ? describedThicknessMm(draft.value.volume, described.value.finding) : undefined,
)
function typeThickness(mm: number | undefined) {
  if (mm === undefined) return
  draft.value.thicknessMm = mm
  draft.value.thicknessTyped = true
}
const missing = computed(() => {
  if (draft.value.name.trim() === '') return 'It needs a name.'
  if (!described.value.ok) return 'Its volume does not add up yet.'
  if (Object.values(problems.value).some((p) => p !== '')) return 'Something cannot be read yet.'
  return ''
})
const tried = ref(false)
function save() {
  tried.value = true
  if (missing.value === '' && !props.busy) emit('save')
}
</script>

<template>
  <form class="editor" novalidate @submit.prevent="save">
    <div class="sheet">
      <section class="slab" aria-labelledby="m-holds">
        <label class="field"
          ><span>Its name</span>
          <!-- A line, however long: read whole in a narrow window. -->
          <Textarea
            v-model="draft.name"
            rows="1"
            auto-resize
            maxlength="120"
            autocomplete="off"
            @keydown.enter.prevent
        /></label>
        <h2 id="m-holds">What it holds</h2>
        <VolumeHelper
          v-model="draft.volume"
          :material="draft.facts.material"
          @problem="note"
          @way="isNew && Object.assign(draft, wayBrings(draft, $event))"
        />
      </section>
      <section class="slab" aria-labelledby="m-is">
        <h2 id="m-is">What it is</h2>
        <div class="pair">
          <LabelledSelect v-model="draft.purpose" label="What comes out of it" :options="purposes as never" />
          <QuantityField
            :model-value="thicknessOf(draft)"
            kind="length"
            :label="
              draft.thicknessTyped || formMm === undefined ? 'Thickness of the piece' : 'Dries like a slab of'
            "
            :min="1"
            :max="500"
            @update:model-value="typeThickness"
            @problem="note('thickness', $event)"
          />
        </div>
        <MouldFactsFields v-model="draft.facts" />
      </section>
      <section class="slab" aria-labelledby="m-use">
        <h2 id="m-use">How it is used</h2>
        <div class="pair">
          <LabelledSelect
            v-model="draft.usualPlasterId"
            label="Its usual plaster"
            placeholder="none in particular"
            :options="plasters"
          />
          <LabelledPills
            :model-value="draft.isSpill ? 'yes' : 'no'"
            label="Takes leftovers"
            :options="YES_NO"
            @update:model-value="draft.isSpill = $event === 'yes'"
          />
          <QuantityField
            v-model="draft.castsBefore"
            kind="number"
            :decimals="0"
            label="Casts made before now"
            :min="0"
            :max="100000"
            @problem="note('casts', $event)"
          />
          <QuantityField
            v-model="draft.lifeCasts"
            kind="number"
            :decimals="0"
            label="Expected casts (0: as usual)"
            :min="0"
            :max="100000"
            @problem="note('life', $event)"
          />
        </div>
        <label class="field"
          ><span>Note</span><Textarea v-model="draft.note" rows="2" maxlength="2000" auto-resize
        /></label>
      </section>
    </div>
    <aside class="side">
      <div class="act">
        <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
        <p v-else-if="tried && missing" class="failure" role="alert">{{ missing }}</p>
        <Button
          type="submit"
          class="go"
          :label="isNew ? 'Put it on the shelf' : 'Keep it so'"
          :disabled="busy"
        />
      </div>
      <section class="slab" aria-label="What it will do">
        <MouldAdvice
          :facts="draft.facts"
          :volume="draft.volume"
          :purpose="draft.purpose"
          :thickness-mm="thicknessOf(draft)"
          :plaster-class="plasterClass"
        />
      </section>
    </aside>
  </form>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  gap: var(--s4);
  align-items: start;
}
.sheet,
.slab {
  display: grid;
  gap: var(--s3);
}
.side {
  display: grid;
  gap: var(--s3);
}
.pair {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(min(13rem, 100%), 1fr));
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  align-content: start;
}
/* It keeps to the top: there it covers nothing that was not passed already. */
.act {
  display: grid;
  gap: var(--s2);
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--chalk);
  padding: var(--s2) 0;
}
.go {
  font-size: 1.15rem;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
@media (max-width: 60rem) {
  .editor {
    grid-template-columns: minmax(0, 1fr);
  }
  .sheet,
  .side {
    display: contents;
  }
  .act {
    order: -1;
  }
  .sheet > :first-child {
    order: -2;
  }
}
</style>
