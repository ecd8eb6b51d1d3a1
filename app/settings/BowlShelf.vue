<script setup lang="ts">
/** The bowls one mixes in: what each holds, and what it weighs empty. Usage: <BowlShelf /> */
import { newId as makeId } from '~~/shared/newId'
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref } from 'vue'
import { useProblems } from '~/parts/form/useProblems'
import { useUnits } from '~/parts/show/useUnits'
import { useLearning } from '~/stores/learning'
import { useWorkshop } from '~/stores/workshop'
import { failureWords } from '~/parts/words/errors'

const workshop = useWorkshop()
const units = useUnits()
const learning = useLearning()
onMounted(() => workshop.bowls.forEach((b) => void learning.load(`bowl:${b.id}`)))

const name = ref('')
const volumeMl = ref<number>()
const tareG = ref<number>()
/** Kept until it is in: sent twice it is one bowl. */
const newId = ref(makeId())
const { note, none } = useProblems()
const failure = ref('')
const valid = computed(() => name.value.trim() !== '' && volumeMl.value !== undefined && none.value)
async function add() {
  if (!valid.value) return
  const bowl = { name: name.value.trim(), volumeMl: volumeMl.value!, tareG: tareG.value ?? 0 }
  const answer = await workshop.saveBowl(newId.value, null, bowl)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  if (!answer.ok) return
  newId.value = makeId()
  name.value = ''
  volumeMl.value = tareG.value = undefined
}
async function drop(id: string) {
  const answer = await workshop.deleteBowl(id)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
}
</script>

<template>
  <ul v-if="workshop.bowls.length > 0">
    <li v-for="b in workshop.bowls" :key="b.id">
      <b>{{ b.name }}</b>
      <span>holds {{ units.volume(b.volumeMl) }}</span>
      <span>{{ b.tareG > 0 ? `weighs ${units.mass(b.tareG)}` : 'not weighed' }}</span>
      <button type="button" class="icon-button" :aria-label="`Take ${b.name} out`" @click="drop(b.id)">
        <X :size="20" aria-hidden="true" />
      </button>
      <LearntNote class="learnt" :name="b.name" :subject="`bowl:${b.id}`" factor="slurry_yield" />
    </li>
  </ul>
  <p v-else class="soft">No bowls yet: a plan then says how large one must be.</p>
  <div class="fields">
    <label class="field"
      ><span>A bowl or bucket</span
      ><InputText v-model="name" maxlength="120" placeholder="what you call it" autocomplete="off"
    /></label>
    <QuantityField
      v-model="volumeMl"
      kind="volume"
      label="It holds, brim full"
      optional
      :min="50"
      :max="500000"
      @problem="note('volume', $event)"
    />
    <QuantityField
      v-model="tareG"
      kind="mass"
      label="It weighs, empty"
      optional
      :min="0"
      :max="100000"
      @problem="note('tare', $event)"
    />
    <Button type="button" severity="secondary" label="Put it in" :disabled="!valid" @click="add" />
  </div>
  <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(8rem, 2fr) 1fr 1fr 44px;
  gap: var(--s3);
  align-items: center;
  border-top: 1px solid var(--line);
}
.learnt {
  grid-column: 1 / -1;
  padding-bottom: var(--s2);
}
.fields {
  display: grid;
  gap: var(--s3);
  align-items: end;
  grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  min-width: 0;
}
.field :deep(input) {
  width: 100%;
  min-width: 0;
}
@media (max-width: 43rem) {
  li {
    grid-template-columns: 1fr 1fr 44px;
  }
  li b {
    grid-column: 1 / -1;
  }
}
</style>
