<script setup lang="ts">
/** A print as it was found: named, and roughly so large; everything else comes on its own page. Usage: <NewPrint /> */
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { FIELD_GROUNDS, type FieldGround } from '#core/field'
import { newId } from '~~/shared/newId'
import { failureWords } from '~/parts/words/errors'
import { useClock } from '~/stores/bench'
import { useKeptHere } from '~/stores/kept'
import { useWorkshop } from '~/stores/workshop'
import { firstPrint } from '~/parts/field/derive'
import { GROUND_NAMES } from '~/parts/field/words'

const workshop = useWorkshop()
const clock = useClock()
const router = useRouter()

const first = () => ({ name: '', ground: 'sand' as FieldGround, lengthMm: 100, widthMm: 80, depthMm: 15 })
const said = useKeptHere('nine-ripples.new-print', first(), { mergeDefaults: true })
const id = newId()
const count = computed(() => workshop.moulds.filter((m) => m.find).length)
const usual = computed(() => `Print ${count.value + 1}`)
const failure = ref('')
const busy = ref(false)

async function keep() {
  busy.value = true
  failure.value = ''
  const { name, ground, ...size } = said.value
  const find = {
    foundAtMs: Math.round(clock.nowMs()),
    place: '',
    position: null,
    ground,
    weather: '',
    light: '',
    depthsMm: [],
    shots: [],
    casts: [],
  }
  const answer = await workshop.saveMould(
    id,
    null,
    firstPrint({ name: name.trim() || usual.value, find, ...size }),
  )
  busy.value = false
  if (!answer.ok) {
    failure.value = failureWords(answer.failure)
    return
  }
  said.value = first()
  await router.push(`/field/prints/${id}`)
}
</script>

<template>
  <div class="page">
    <h1>A print found</h1>
    <p class="soft">Do not step closer than you must, and touch nothing yet. A guess at its size will do.</p>
    <form class="slab form" novalidate @submit.prevent="keep">
      <label class="field">
        <span>It is called</span>
        <InputText v-model="said.name" maxlength="120" :placeholder="usual" />
      </label>
      <LabelledPills
        v-model="said.ground"
        label="It lies in"
        :options="FIELD_GROUNDS.map((value) => ({ value, label: GROUND_NAMES[value] }))"
      />
      <div class="pair">
        <QuantityField v-model="said.lengthMm" kind="length" label="About so long" :min="10" :max="3000" />
        <QuantityField v-model="said.widthMm" kind="length" label="so wide" :min="10" :max="3000" />
        <QuantityField v-model="said.depthMm" kind="length" label="so deep" :min="1" :max="500" />
      </div>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
      <Button type="submit" :disabled="busy" label="Photograph and measure it" />
    </form>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  gap: var(--s4);
  justify-items: start;
  max-width: 44rem;
}
.form > .pair {
  width: 100%;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  width: min(24rem, 100%);
}
</style>
