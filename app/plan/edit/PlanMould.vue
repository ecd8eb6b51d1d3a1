<script setup lang="ts">
/**
 * The worksheet's first part: a mould off the shelf, a set, or one described on the spot.
 * Usage: <PlanMould v-model="draft" :problem="noteProblem" @pick="pickMould" @pick-set="pickSet" />
 */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { thicknessOf } from '~/parts/mould/mouldDraft'
import { MATERIAL_WORDS, PURPOSE_WORDS } from '~/parts/words/mould'
import type { MouldSource, PlanDraft } from '../draft/planDraft'
import { isOutside } from '../draft/toPlan'
import { usePlanStock } from '../usePlanStock'
import { plasterOf } from '~/parts/plaster/plasterChoice'
import { pictured, sectionOf } from '~/parts/mould/ways'
import { provenanceWords } from '~/parts/words/plaster'
import type { MouldCard } from '~~/shared/moulds'

const props = defineProps<{ problem: (field: string, message: string) => void }>()
const draft = defineModel<PlanDraft>({ required: true })
const emit = defineEmits<{ pick: [mouldId: string]; pickSet: [setId: string] }>()
const workshop = useWorkshop()
const units = useUnits()
const stock = usePlanStock()

const SOURCES: { value: MouldSource; label: string }[] = [
  { value: 'shelf', label: 'From the shelf' },
  { value: 'set', label: 'A set' },
  { value: 'describe', label: 'Describe it' },
]
const sources = computed(() =>
  SOURCES.filter((s) =>
    s.value === 'shelf'
      ? workshop.moulds.length > 0
      : s.value === 'set'
        ? workshop.mouldSets.length > 0
        : true,
  ),
)
function chooseSource(source: MouldSource) {
  if (source === 'set' && !workshop.mouldSets.some((s) => s.id === draft.value.setId))
    emit('pickSet', workshop.mouldSets[0]!.id)
  else draft.value.source = source
}
const mouldOptions = computed(() => workshop.moulds.map((m) => ({ value: m.id, label: m.name })))
const setOptions = computed(() => workshop.mouldSets.map((s) => ({ value: s.id, label: s.name })))
const card = computed(() => workshop.moulds.find((m) => m.id === draft.value.shelfId))
const members = computed(() =>
  (workshop.mouldSets.find((s) => s.id === draft.value.setId)?.members ?? []).map((m) => ({
    count: m.count,
    card: workshop.moulds.find((c) => c.id === m.mouldId),
  })),
)
/** The one mould in hand; a set has its pages. */
const inHand = computed(() => {
  if (draft.value.source === 'shelf') return card.value
  if (draft.value.source === 'set') return undefined
  return { ...draft.value.described, thicknessMm: thicknessOf(draft.value.described) }
})
const plasterClass = computed(() => plasterOf(draft.value, workshop, 0)?.properties.classId)
const LEFTOVER = [
  { value: 'moulds', label: 'Fills spill moulds' },
  { value: 'bowl', label: 'Stays in the bowl' },
]

const kept = ref('')
/** On the shelf it goes, and the plan goes on from there. */
function goOnFrom(card: MouldCard) {
  kept.value = `${card.name} is on the shelf.`
  draft.value.shelfCount = 1
  Object.assign(draft.value, { source: 'shelf', shelfId: card.id, coverMm: null })
}
const note = (field: string, message: string) => props.problem(field, message)
</script>

<template>
  <section class="slab" aria-label="Mould">
    <label class="field"
      ><span>What will it be?</span>
      <InputText
        v-model="draft.piece"
        placeholder="a name for the piece"
        maxlength="120"
        autocomplete="off"
      />
    </label>
    <ChoicePills
      v-if="sources.length > 1"
      :model-value="draft.source"
      label="Which mould, from where"
      :options="sources"
      @update:model-value="chooseSource"
    />
    <p v-if="kept" role="status" class="kept">{{ kept }}</p>

    <template v-if="draft.source === 'shelf'">
      <div class="shelf">
        <LabelledSelect
          :model-value="draft.shelfId"
          label="Which mould"
          :options="mouldOptions"
          placeholder="choose a mould"
          @update:model-value="emit('pick', $event)"
        />
        <QuantityField
          v-model="draft.shelfCount"
          kind="number"
          :decimals="0"
          label="How many"
          :min="1"
          :max="100"
          @problem="note('count', $event)"
        />
      </div>
      <div v-if="card" class="card">
        <SectionPicture
          class="thumb"
          :drawing="sectionOf(pictured(card.volume), card.cavityMl)"
          :material="card.facts.material"
          :label="`Section of ${card.name}`"
        />
        <div>
          <p>
            Holds <b>{{ units.volumeRange(card.cavityMl, card.plusMinusMl)[0] }}</b> ±
            {{ units.volumeRange(card.cavityMl, card.plusMinusMl)[1] }},
            {{ provenanceWords(card.volumeProvenance) }}
          </p>
          <p class="soft">
            {{ MATERIAL_WORDS[card.facts.material] }} · {{ PURPOSE_WORDS[card.purpose].toLowerCase() }} ·
            {{ units.length(card.thicknessMm) }} thick
          </p>
          <p v-if="draft.coverMm !== null">
            With {{ units.size(draft.coverMm) }} of cover, this pour alone.
            <Button severity="secondary" label="As its card says" @click="draft.coverMm = null" />
          </p>
          <NuxtLink :to="`/moulds/${card.id}`">Its page</NuxtLink>
        </div>
      </div>
    </template>

    <template v-else-if="draft.source === 'set'">
      <LabelledSelect
        :model-value="draft.setId"
        label="Which set"
        :options="setOptions"
        @update:model-value="emit('pickSet', $event)"
      />
      <div class="members">
        <figure v-for="m in members" :key="m.card?.id">
          <SectionPicture
            v-if="m.card"
            class="thumb"
            :drawing="sectionOf(pictured(m.card.volume), m.card.cavityMl)"
            :material="m.card.facts.material"
            :label="`Section of ${m.card.name}`"
          />
          <figcaption>
            {{ m.count > 1 ? `${m.count} × ` : '' }}{{ m.card?.name ?? 'no longer here' }}
          </figcaption>
        </figure>
      </div>
    </template>

    <PlanMouldDescribed v-else v-model="draft.described" @kept="goOnFrom" @problem="note" />

    <details v-if="inHand">
      <summary>Will it let go, and what to make ready</summary>
      <MouldAdvice
        class="advice"
        :facts="inHand.facts"
        :volume="inHand.volume"
        :purpose="inHand.purpose"
        :thickness-mm="inHand.thicknessMm"
        :plaster-class="plasterClass"
      />
    </details>
    <div class="pair">
      <QuantityField
        v-model="draft.sparePct"
        kind="number"
        label="Spare"
        suffix="% more than it holds"
        :min="0"
        :max="100"
        @problem="note('spare', $event)"
      />
      <LabelledPills
        v-if="workshop.moulds.some((m) => m.isSpill) && !isOutside(draft, stock)"
        :model-value="draft.useSpill ? 'moulds' : 'bowl'"
        label="What is left over"
        :options="LEFTOVER"
        @update:model-value="draft.useSpill = $event === 'moulds'"
      />
    </div>
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
.shelf {
  display: grid;
  gap: var(--s3);
  grid-template-columns: minmax(0, 1fr) 6.5rem;
}
.card {
  display: grid;
  grid-template-columns: 11rem 1fr;
  gap: var(--s4);
  align-items: center;
}
.thumb {
  height: 8rem;
}
.members {
  display: grid;
  gap: var(--s3);
  grid-template-columns: repeat(auto-fit, minmax(8rem, 1fr));
}
figure {
  margin: 0;
  text-align: center;
}
.advice {
  padding-top: var(--s3);
}
summary {
  cursor: pointer;
  min-height: 44px;
  padding-top: var(--s2);
  font-weight: 600;
}
.kept {
  font-weight: 600;
  color: var(--wet);
}
@media (max-width: 43rem) {
  .card {
    grid-template-columns: 7rem 1fr;
  }
}
</style>
