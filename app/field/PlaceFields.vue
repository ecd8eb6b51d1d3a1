<script setup lang="ts">
/**
 * Where a print lies, as finely as one wishes it kept: in words, and by the device where that is allowed.
 * Usage: <PlaceFields :find @change="change" />
 */
import { LocateFixed } from '@lucide/vue'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { ref, watch } from 'vue'
import { FIELD_GROUNDS } from '#core/field'
import { useKept } from '~/stores/kept'
import type { Find } from '~~/shared/finds'
import { FINENESS, keptAs, positionText, readPosition, type Fineness } from '~/parts/field/position'
import { GROUND_ADVICE, GROUND_NAMES } from '~/parts/field/words'

const props = defineProps<{ find: Find }>()
const emit = defineEmits<{ change: [said: Partial<Find>] }>()

/** Chosen once, for all prints of this device. */
const fineness = useKept<Fineness>('nine-ripples.fineness', 'none')
const typed = ref('')
const said = ref('')
const asking = ref(false)

function put(position: { latDeg: number; lonDeg: number }, accuracyM: number) {
  const kept = keptAs(position, fineness.value, accuracyM)
  said.value =
    kept?.withinM === 1000 && fineness.value === '10'
      ? `It is known within ${Math.round(accuracyM)} m only: kept to 1 km.`
      : ''
  emit('change', { position: kept })
}
function locate() {
  asking.value = true
  said.value = ''
  navigator.geolocation.getCurrentPosition(
    ({ coords }) => {
      asking.value = false
      put({ latDeg: coords.latitude, lonDeg: coords.longitude }, coords.accuracy)
    },
    (error) => {
      asking.value = false
      said.value =
        error.code === error.PERMISSION_DENIED
          ? 'The position was refused. Type it, or leave it out.'
          : 'The device does not know where it is just now. Type it, or leave it out.'
    },
    { enableHighAccuracy: fineness.value === '10', timeout: 20_000, maximumAge: 60_000 },
  )
}
function read() {
  if (typed.value.trim() === '') return
  const found = readPosition(typed.value)
  if (!found.ok) {
    said.value = found.why
    return
  }
  put(found.position, 0)
  typed.value = ''
}
watch(fineness, (now) => {
  const known = props.find.position
  if (now === 'none') emit('change', { position: null })
  else if (known && now === '1000') emit('change', { position: keptAs(known, now, 0) })
})
</script>

<template>
  <div class="fields">
    <label class="field">
      <span>Where</span>
      <InputText
        :model-value="find.place"
        maxlength="200"
        placeholder="north end of the flat, by the second groyne"
        @update:model-value="emit('change', { place: $event ?? '' })"
      />
    </label>
    <LabelledPills
      :model-value="find.ground"
      label="The ground"
      :options="FIELD_GROUNDS.map((value) => ({ value, label: GROUND_NAMES[value] }))"
      @update:model-value="emit('change', { ground: $event })"
    />
    <p class="soft">{{ GROUND_ADVICE[find.ground] }}</p>
    <label class="field">
      <span>Weather</span>
      <InputText
        :model-value="find.weather"
        maxlength="200"
        @update:model-value="emit('change', { weather: $event ?? '' })"
      />
    </label>
    <div class="pair">
      <QuantityField
        :model-value="find.airTempC ?? undefined"
        kind="temp"
        label="Air there"
        :min="-40"
        :max="60"
        optional
        @update:model-value="emit('change', { airTempC: $event ?? null })"
      />
      <label class="field">
        <span>Light</span>
        <InputText
          :model-value="find.light"
          maxlength="200"
          placeholder="low sun from the left"
          @update:model-value="emit('change', { light: $event ?? '' })"
        />
      </label>
    </div>
    <LabelledPills v-model="fineness" label="Position is kept" :options="FINENESS" />
    <div v-if="fineness !== 'none'" class="position">
      <p v-if="find.position">
        <b>{{ positionText(find.position) }}</b>
      </p>
      <Button severity="secondary" :disabled="asking" @click="locate">
        <LocateFixed :size="18" aria-hidden="true" />{{ asking ? 'Looking…' : 'Where this device is' }}
      </Button>
      <label class="field">
        <span>or typed, WGS 84</span>
        <InputText v-model="typed" inputmode="decimal" placeholder="54.1234, -3.6543" @change="read" />
      </label>
    </div>
    <p v-if="said" class="failure" role="status">{{ said }}</p>
  </div>
</template>

<style scoped>
.fields,
.field {
  display: grid;
  /* A field has a width of its own, and is no wider than its column for that. */
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s3);
}
.field {
  gap: var(--s1);
  font-weight: 600;
}
.position {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: end;
}
</style>
