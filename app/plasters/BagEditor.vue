<script setup lang="ts">
/** A bag of a plaster: size, price, how it is kept, what is left. Usage: <BagEditor v-model="open" :plaster :bag /> */
import { newId } from '~~/shared/newId'
import { format } from 'date-fns'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref, toRaw } from 'vue'
import { BAG_KEEPINGS } from '#core/stock'
import { useClock } from '~/stores/bench'
import { useConflict } from '~/parts/form/useConflict'
import { useProblems } from '~/parts/form/useProblems'
import { useSheetDraft } from '~/parts/form/useSheetDraft'
import { useUnits } from '~/parts/show/useUnits'
import { useWorkshop } from '~/stores/workshop'
import { bagLines } from '~/parts/form/cardLines'
import { KEEPING_WORDS } from '~/parts/words/mix'
import { bagInputOf } from '~/parts/plaster/plasterChoice'
import { failureWords } from '~/parts/words/errors'
import type { BagCard, BagInput, PlasterCard } from '~~/shared/stock'

const props = defineProps<{ plaster: PlasterCard | undefined; bag: BagCard | undefined }>()
const open = defineModel<boolean>({ required: true })
const workshop = useWorkshop()

const draft = ref<BagInput>()
const seen = ref<number | null>(null)
const id = ref('')
/** What the bag weighs now, if somebody weighed it. */
const leftNowG = ref<number>()
const { note, clear, none } = useProblems()
const failure = ref('')
const {
  theirs,
  meets,
  clear: clearConflict,
  keepMine,
  takeTheirs,
} = useConflict<BagCard>({
  seen,
  keep,
  show(card) {
    draft.value = structuredClone(bagInputOf(card))
    leftNowG.value = undefined
  },
})
const units = useUnits()
const lines = (bag: BagInput) =>
  bagLines(
    bag,
    units,
    workshop.settings.currency,
    (of) => workshop.plasters.find((p) => p.id === of)?.name ?? '?',
  )
const clock = useClock()
const { settled } = useSheetDraft(
  open,
  () => props.plaster && `${props.plaster.id} ${props.bag?.id ?? 'new'}`,
  () => fill(props.plaster!),
)
function fill(plaster: PlasterCard) {
  const bag = toRaw(props.bag)
  if (bag) draft.value = structuredClone(bagInputOf(bag))
  else
    draft.value = {
      plasterId: plaster.id,
      name: `Bag ${workshop.bags.filter((b) => b.plasterId === plaster.id).length + 1}`,
      boughtG: 25_000,
      price: null,
      openedOn: format(clock.nowMs(), 'yyyy-MM-dd'),
      keeping: 'sealed',
      scoop: null,
      counted: null,
      usedUp: false,
      note: '',
    }
  seen.value = bag?.revision ?? null
  id.value = bag?.id ?? newId()
  leftNowG.value = undefined
  clear()
  clearConflict()
  failure.value = ''
}
/** It is as it should be: the sheet has nothing more to keep. */
function close() {
  settled()
  open.value = false
}

const keepings = BAG_KEEPINGS.map((value) => ({ value, label: KEEPING_WORDS[value] }))
const valid = computed(() => none.value && (draft.value?.name.trim() ?? '') !== '')
async function keep() {
  if (!draft.value || !valid.value) return
  failure.value = ''
  const counted =
    leftNowG.value === undefined
      ? draft.value.counted
      : { leftG: leftNowG.value, atMs: Math.round(clock.nowMs()) }
  const answer = await workshop.saveBag(id.value, seen.value, {
    ...draft.value,
    name: draft.value.name.trim(),
    counted,
  })
  if (answer.ok) close()
  else if (!meets(answer.failure)) failure.value = failureWords(answer.failure)
}
async function throwAway() {
  const answer = await workshop.deleteBag(id.value)
  if (answer.ok) close()
  else failure.value = failureWords(answer.failure)
}
</script>

<template>
  <SheetDialog v-model="open" :title="bag ? 'The bag' : `A bag of ${plaster?.name ?? ''}`">
    <form v-if="draft" class="form" novalidate @submit.prevent="keep">
      <label class="field"
        ><span>Written on it</span><InputText v-model="draft.name" maxlength="120" autocomplete="off"
      /></label>
      <div class="pair">
        <QuantityField
          v-model="draft.boughtG"
          kind="mass"
          label="It held"
          :min="10"
          :max="2000000"
          @problem="note('bought', $event)"
        />
        <QuantityField
          :model-value="draft.price ?? undefined"
          kind="number"
          optional
          label="It cost"
          :suffix="workshop.settings.currency"
          :min="0"
          :max="1000000"
          @update:model-value="draft.price = $event ?? null"
          @problem="note('price', $event)"
        />
        <label class="field"
          ><span>Opened on</span>
          <InputText
            type="date"
            :model-value="draft.openedOn ?? ''"
            @update:model-value="draft.openedOn = $event || null"
        /></label>
        <QuantityField
          v-model="leftNowG"
          kind="mass"
          optional
          label="Weighed now, it holds"
          :min="0"
          :max="draft.boughtG"
          @problem="note('left', $event)"
        />
      </div>
      <LabelledPills v-model="draft.keeping" label="How it is kept" :options="keepings" />
      <LabelledPills
        :model-value="draft.usedUp ? 'yes' : 'no'"
        label="Used up"
        :options="[
          { value: 'no', label: 'Still some in it' },
          { value: 'yes', label: 'Used up' },
        ]"
        @update:model-value="draft.usedUp = $event === 'yes'"
      />
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <ConflictNote
        v-if="theirs"
        :mine="lines(draft)"
        :theirs="lines(theirs)"
        @mine="keepMine"
        @theirs="takeTheirs"
      />
      <div class="acts">
        <Button type="submit" label="Keep the bag" :disabled="!valid" />
        <Button v-if="bag" type="button" severity="secondary" label="Forget this bag" @click="throwAway" />
      </div>
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
.acts {
  display: flex;
  gap: var(--s3);
  flex-wrap: wrap;
}
</style>
