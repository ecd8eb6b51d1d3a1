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
import { firstPrint, newFind } from '~/parts/field/derive'
import { GROUND_NAMES } from '~/parts/field/words'

const workshop = useWorkshop()
const clock = useClock()
const router = useRouter()

const OUT_THERE = { name: '', ground: 'sand' as FieldGround, lengthMm: 100, widthMm: 80, depthMm: 15 }
/** A stamp, a shell or a hand pressed into a tray. */
const IN_A_TRAY = { ...OUT_THERE, lengthMm: 70, widthMm: 50, depthMm: 10 }
const isIndoors = ref(false)
const first = () => (isIndoors.value ? { ...IN_A_TRAY } : { ...OUT_THERE })
const said = useKeptHere('nine-ripples.new-print', first(), { mergeDefaults: true })
const id = newId()
const count = computed(() => workshop.moulds.filter((m) => m.find).length)
const usual = computed(() => `${isIndoors.value ? 'Practice print' : 'Print'} ${count.value + 1}`)
function indoors(yes: boolean) {
  isIndoors.value = yes
  said.value = { ...first(), name: said.value.name }
}
const failure = ref('')
const busy = ref(false)

async function keep() {
  busy.value = true
  failure.value = ''
  const { name, ground, ...size } = said.value
  const find = {
    ...newFind(ground, Math.round(clock.nowMs())),
    ...(isIndoors.value && { weather: 'Indoors', airTempC: workshop.settings.roomTempC }),
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
    <label class="tick-line">
      <input type="checkbox" :checked="isIndoors" @change="indoors(!isIndoors)" />
      It is practice, in a tray indoors
    </label>
    <div class="columns">
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
      <section class="slab" aria-label="Before it is filled">
        <p v-if="isIndoors">
          Fine sand, damp enough that a squeezed handful stands, 50 mm deep in a tray, pressed level. A stamp,
          a shell or a hand goes straight down and straight up; then nobody’s skin comes near the plaster.
          From here on it is as out there: photograph, measure, ring, spoon, cover.
        </p>
        <ol v-else>
          <li>Photographs, before anything is touched: straight down, then from the sides.</li>
          <li>In the frame a rule at a right angle to it, or a bank card laid flat beside it.</li>
          <li>Low sun from the side, no flash. One photograph of several, where they make a stride.</li>
          <li>Loose bits out, nothing pressed. The ring goes in last.</li>
        </ol>
      </section>
    </div>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  gap: var(--s4);
  grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
  align-items: start;
}
ol {
  margin: 0;
  padding-left: 1.4rem;
  display: grid;
  gap: var(--s2);
}
.form {
  display: grid;
  gap: var(--s4);
  justify-items: start;
}
.form > .pair {
  width: 100%;
  grid-template-columns: repeat(auto-fit, minmax(min(8rem, 100%), 1fr));
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  width: min(24rem, 100%);
}
</style>
