<script setup lang="ts">
/** Places to dry in: their air, by day and by night, and what they have shown. Usage: <PlaceShelf /> */
import { newId as makeId } from '~~/shared/newId'
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, onMounted, ref } from 'vue'
import type { Air } from '#core/drying'
import { useProblems } from '~/parts/form/useProblems'
import { figure } from '~/parts/show/figures'
import { useUnits } from '~/parts/show/useUnits'
import { ERROR_WORDS, failureWords } from '~/parts/words/errors'
import { useLearning } from '~/stores/learning'
import { useWorkshop } from '~/stores/workshop'
import { PLACE_KINDS, type PlaceKind } from '~~/shared/learning'
import { PLACE_KIND_WORDS, USUAL_PLACE } from './places'

const workshop = useWorkshop()
const learning = useLearning()
const units = useUnits()
onMounted(() => workshop.places.forEach((p) => void learning.load(`place:${p.id}`)))

const name = ref('')
const kind = ref<PlaceKind>('still')
const { settings } = workshop
const air = ref<Air>(USUAL_PLACE.still(settings).air)
const nightAir = ref<Air | null>(null)
/** Which card is being changed; undefined: a new one. */
const changing = ref<{ id: string; revision: number }>()
/** Kept until it is in: sent twice it is one place. */
const newId = ref(makeId())
const { note, none } = useProblems()
const failure = ref('')
const valid = computed(() => name.value.trim() !== '' && none.value)
const kinds = PLACE_KINDS.map((value) => ({ value, label: PLACE_KIND_WORDS[value] }))

function pick(picked: PlaceKind) {
  kind.value = picked
  const usual = USUAL_PLACE[picked](workshop.settings)
  air.value = { ...usual.air }
  nightAir.value = usual.nightAir && { ...usual.nightAir }
}
async function keep() {
  if (!valid.value) return
  const place = { name: name.value.trim(), kind: kind.value, air: air.value, nightAir: nightAir.value }
  const { id, revision } = changing.value ?? { id: newId.value, revision: null }
  const answer = await workshop.savePlace(id, revision, place)
  failure.value = answer.ok ? '' : failureWords(answer.failure)
  if (!answer.ok) {
    // Somebody else was quicker: theirs is on the list by now, and keeping again keeps this one.
    if (answer.failure.code === 'stale_card' && changing.value)
      changing.value = {
        id,
        revision: workshop.places.find((p) => p.id === id)?.revision ?? changing.value.revision,
      }
    return
  }
  clear()
}
function clear() {
  newId.value = makeId()
  changing.value = undefined
  name.value = ''
  pick('still')
}
function change(id: string) {
  const place = workshop.places.find((p) => p.id === id)
  if (!place) return
  changing.value = { id, revision: place.revision }
  name.value = place.name
  kind.value = place.kind
  air.value = { ...place.air }
  nightAir.value = place.nightAir && { ...place.nightAir }
}
async function drop(id: string) {
  const answer = await workshop.deletePlace(id)
  failure.value = answer.ok ? '' : ERROR_WORDS[answer.failure.code]
}
const airText = ({ tempC, rhPct, speedMS }: Air) =>
  `${units.temp(tempC)}, ${figure(rhPct)} % damp, ${figure(speedMS, 1)} m/s`
</script>

<template>
  <ul v-if="workshop.places.length > 0">
    <li v-for="p in workshop.places" :key="p.id">
      <div>
        <b>{{ p.name }}</b>
        <span class="soft">
          {{ PLACE_KIND_WORDS[p.kind] }}: {{ airText(p.air)
          }}<template v-if="p.nightAir">; by night {{ airText(p.nightAir) }}</template>
        </span>
        <NuxtLink :to="{ path: '/casts', query: { tags: `place:${p.id}` } }">What dried here</NuxtLink>
        <LearntNote :name="p.name" :subject="`place:${p.id}`" factor="drying" />
      </div>
      <Button severity="secondary" label="Change" :aria-label="`Change ${p.name}`" @click="change(p.id)" />
      <button type="button" class="icon-button" :aria-label="`Take ${p.name} out`" @click="drop(p.id)">
        <X :size="20" aria-hidden="true" />
      </button>
    </li>
  </ul>
  <p v-else class="soft">No places yet: pieces dry in the air they set in.</p>
  <div class="fields">
    <label class="field"
      ><span>A place to dry in</span
      ><InputText v-model="name" maxlength="120" placeholder="what you call it" autocomplete="off"
    /></label>
    <ChoicePills
      :model-value="kind"
      label="What kind of place"
      :options="kinds"
      @update:model-value="pick($event)"
    />
  </div>
  <div v-for="(which, i) in [air, nightAir]" :key="i" class="fields">
    <template v-if="which">
      <QuantityField
        v-model="which.tempC"
        kind="temp"
        :label="i === 0 ? 'Air' : 'By night'"
        :min="0"
        :max="50"
        @problem="note(`temp${i}`, $event)"
      />
      <QuantityField
        v-model="which.rhPct"
        kind="number"
        label="Humidity"
        suffix="%"
        :min="1"
        :max="96"
        @problem="note(`rh${i}`, $event)"
      />
      <QuantityField
        v-model="which.speedMS"
        kind="number"
        :decimals="1"
        label="Air speed"
        suffix="m/s"
        :min="0.02"
        :max="10"
        @problem="note(`speed${i}`, $event)"
      />
    </template>
  </div>
  <p v-if="air.tempC > 45" class="failure">
    Dry plaster gives up water of its own above 45 °C and goes chalky. Below that, air that moves does more.
  </p>
  <div class="acts">
    <Button
      type="button"
      severity="secondary"
      :label="changing ? 'Keep it so' : 'Add the place'"
      :disabled="!valid"
      @click="keep"
    />
    <Button v-if="changing" type="button" severity="secondary" label="Leave it" @click="clear" />
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
  grid-template-columns: minmax(0, 1fr) auto 44px;
  gap: var(--s3);
  align-items: start;
  border-top: 1px solid var(--line);
  padding: var(--s2) 0;
}
.soft {
  display: block;
}
.fields {
  display: grid;
  gap: var(--s3);
  align-items: end;
  grid-template-columns: repeat(auto-fit, minmax(min(11rem, 100%), 1fr));
}
.fields:first-of-type {
  grid-template-columns: minmax(0, 1fr);
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  min-width: 0;
  max-width: 24rem;
}
.acts {
  display: flex;
  gap: var(--s3);
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
</style>
