<script setup lang="ts">
/** Where it dries and how it lies; carried elsewhere, the forecast follows. Usage: <RunWhere :facts :ahead :now-ms @record /> */
import { computed, onMounted, ref, watch } from 'vue'
import Button from 'primevue/button'
import { EXPOSURES, type Exposure } from '#core/drying'
import type { DryingAhead, EventBody, PourOutlook } from '#core/pour'
import { factorSentence } from '~/parts/learn/words'
import { spotOf } from '~/parts/learn/places'
import { EXPOSURE_WORDS } from '~/parts/words/pour'
import { useClock } from '~/stores/bench'
import { useLearning } from '~/stores/learning'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{ facts: PourOutlook; ahead: DryingAhead; nowMs: number }>()
const emit = defineEmits<{ record: [body: EventBody] }>()
const workshop = useWorkshop()
const learning = useLearning()
const clock = useClock()

const here = computed(() => props.facts.drying!.legs.at(-1)!)
const placeId = ref('')
const lies = ref<Exposure>('both_faces')
watch(
  here,
  (leg) => {
    placeId.value = leg.spot.placeId ?? ''
    lies.value = leg.lies
  },
  { immediate: true },
)
onMounted(() => workshop.places.forEach((p) => void learning.load(`place:${p.id}`)))
const places = computed(() => [
  ...(here.value.spot.placeId === null ? [{ value: '', label: 'Where it was poured' }] : []),
  ...workshop.places.map((p) => ({ value: p.id, label: p.name })),
])
const lieOptions = EXPOSURES.map((value) => ({ value, label: EXPOSURE_WORDS[value] }))
const moved = computed(
  () => placeId.value !== (here.value.spot.placeId ?? '') || lies.value !== here.value.lies,
)
function carry() {
  const place = workshop.places.find((p) => p.id === placeId.value)
  const spot = place ? spotOf(place, learning.seenOf, clock.nowMs()) : here.value.spot
  emit('record', { type: 'dries_at', spot, lies: lies.value })
}
</script>

<template>
  <section class="where" aria-labelledby="where-title">
    <h2 id="where-title">Where it dries</h2>
    <p>
      {{ here.spot.name || 'Where it was poured' }}; {{ EXPOSURE_WORDS[here.lies].toLowerCase() }}.
      <template v-if="here.spot.pace">
        It {{ factorSentence('drying', Math.exp(here.spot.pace.meanLn), here.spot.pace.pours) }}.
      </template>
    </p>
    <details>
      <summary>It is carried elsewhere, or lies otherwise</summary>
      <div class="form">
        <LabelledSelect v-if="places.length > 1" v-model="placeId" label="Now at" :options="places" />
        <ChoicePills v-model="lies" label="How it lies" :options="lieOptions" />
        <Button label="It is there now" :disabled="!moved" @click="carry" />
      </div>
    </details>
    <template v-if="ahead.savings.length > 0">
      <h3>Sooner with</h3>
      <DrySavings :savings="ahead.savings" />
    </template>
  </section>
</template>

<style scoped>
.where,
.form {
  display: grid;
  gap: var(--s2);
}
h2 {
  font-size: 1.15rem;
}
h3 {
  font-size: 1rem;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
  font-weight: 600;
}
</style>
