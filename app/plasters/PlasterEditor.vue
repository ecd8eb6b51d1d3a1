<script setup lang="ts">
/** A plaster card, from the bag's label, starting from the nearest class. Usage: <PlasterEditor v-model="open" :card="card" /> */
import { newId as makeId } from '~~/shared/newId'
import { plain, rounded } from '~/parts/show/figures'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Textarea from 'primevue/textarea'
import { computed, ref, toRaw, useId } from 'vue'
import { checkConsistency } from '#core/mix'
import { PLASTER_CLASS_IDS, type LabelReading } from '#core/plaster'
import { SET_TESTS, labelOfClass, propertiesOfCard } from '#core/stock'
import { useConflict } from '~/parts/form/useConflict'
import { useProblems } from '~/parts/form/useProblems'
import { useSheetDraft } from '~/parts/form/useSheetDraft'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { plasterLines } from '~/parts/form/cardLines'
import { SET_TEST_WORDS } from '~/parts/words/mix'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'
import { failureWords } from '~/parts/words/errors'
import { issueWords } from '~/parts/words/mix'
import type { PlasterCard, PlasterInput } from '~~/shared/stock'

const props = defineProps<{ card: PlasterCard | undefined }>()
const open = defineModel<boolean>({ required: true })
const workshop = useWorkshop()
const units = useUnits()
const ids = useId()

const inputOf = ({ name, label, printedRatio, additions, note }: PlasterCard): PlasterInput => ({
  name,
  label,
  printedRatio,
  additions,
  note,
})
const empty = (): PlasterInput => ({
  name: '',
  label: labelOfClass('pottery'),
  printedRatio: '',
  additions: [],
  note: '',
})
const draft = ref(empty())
const seen = ref<number | null>(null)
const newId = ref('')
const { note, clear, none } = useProblems()
const failure = ref('')
const {
  theirs,
  meets,
  clear: clearConflict,
  keepMine,
  takeTheirs,
} = useConflict<PlasterCard>({
  seen,
  keep,
  show: (card) => (draft.value = structuredClone(inputOf(card))),
})
const { settled } = useSheetDraft(open, () => props.card?.id ?? 'new', fill)
function fill() {
  const card = toRaw(props.card)
  draft.value = card ? structuredClone(inputOf(card)) : empty()
  seen.value = card?.revision ?? null
  newId.value = card?.id ?? makeId()
  clear()
  clearConflict()
  failure.value = ''
}

const classes = PLASTER_CLASS_IDS.map((value) => ({ value, label: PLASTER_CLASS_WORDS[value] }))
const tests = SET_TESTS.map((value) => ({ value, label: SET_TEST_WORDS[value] }))
const properties = computed(() => propertiesOfCard(draft.value.label))
/** A label is taken at its word, and said where its class is mixed otherwise. */
const unusual = computed(() => checkConsistency(properties.value.useConsistency, properties.value))
const tenths = (c: number) => rounded(c, 1)
/** What is printed by volume is a ratio by weight only through how the powder packs; scooped is the usual. */
function take(read: LabelReading) {
  draft.value.label.consistency = tenths(read.consistency)
  const range = read.by === 'weight' ? read.range : undefined
  draft.value.label.range = range ? { low: tenths(range.low), high: tenths(range.high) } : null
}
function typeRatio(text: string) {
  draft.value.printedRatio = text
  if (text.trim() === '') draft.value.label.consistency = draft.value.label.range = null
}
const valid = computed(() => none.value && draft.value.name.trim() !== '')

async function keep() {
  if (!valid.value) return
  failure.value = ''
  const answer = await workshop.savePlaster(newId.value, seen.value, {
    ...draft.value,
    name: draft.value.name.trim(),
  })
  if (answer.ok) {
    settled()
    open.value = false
    return
  }
  if (!meets(answer.failure)) failure.value = failureWords(answer.failure)
}
</script>

<template>
  <SheetDialog v-model="open" :title="card ? 'Change the card' : 'A plaster, from its bag'">
    <form class="form" novalidate @submit.prevent="keep">
      <label class="field"
        ><span>What you call it</span><InputText v-model="draft.name" maxlength="120" autocomplete="off"
      /></label>
      <LabelledSelect v-model="draft.label.classId" label="Nearest class" :options="classes" />
      <LabelReadingField
        :model-value="draft.printedRatio"
        label="Ratio, as printed"
        :class-id="draft.label.classId"
        @update:model-value="typeRatio"
        @reading="take"
        @open="note('printed', $event ? 'Say which it means.' : '')"
      />
      <p class="soft">
        Use consistency {{ plain(properties.useConsistency, 1) }} of water to 100,
        {{ draft.label.consistency === null ? 'the class’s own' : 'from the label'
        }}<template v-if="draft.label.range"
          >, which prints {{ draft.label.range.low }} to {{ draft.label.range.high }}</template
        >. Leave empty what the bag does not say.
      </p>
      <p v-for="issue in unusual" :key="issue.code" class="failure" role="status">
        {{ issueWords(issue, units) }}
      </p>
      <div class="pair">
        <QuantityField
          :model-value="draft.label.setMin ?? undefined"
          kind="number"
          optional
          :decimals="0"
          label="Sets in"
          suffix="min"
          :min="1"
          :max="240"
          @update:model-value="draft.label.setMin = $event ?? null"
          @problem="note('setMin', $event)"
        />
        <LabelledSelect v-model="draft.label.setTest" label="Set, by which test" :options="tests" />
        <QuantityField
          :model-value="draft.label.expansionPct ?? undefined"
          kind="number"
          optional
          label="Expansion"
          suffix="%"
          :min="-1"
          :max="3"
          @update:model-value="draft.label.expansionPct = $event ?? null"
          @problem="note('expansion', $event)"
        />
        <QuantityField
          :model-value="draft.label.dryStrengthMPa ?? undefined"
          kind="number"
          optional
          :decimals="1"
          label="Strength, dry"
          suffix="MPa"
          :min="0.5"
          :max="200"
          @update:model-value="draft.label.dryStrengthMPa = $event ?? null"
          @problem="note('strength', $event)"
        />
      </div>
      <b>What always goes in with it</b>
      <AdditionsFields v-model="draft.additions" @problem="note" />
      <label :for="`${ids}-note`"><b>Note</b></label>
      <Textarea :id="`${ids}-note`" v-model="draft.note" rows="2" maxlength="2000" />
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <ConflictNote
        v-if="theirs"
        :mine="plasterLines(draft)"
        :theirs="plasterLines(theirs)"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <Button type="submit" label="Keep the card" :disabled="!valid" />
    </form>
  </SheetDialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: var(--s3);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
</style>
