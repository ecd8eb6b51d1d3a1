<script setup lang="ts">
/**
 * A spoonful mixed and timed: five minutes that tell whether a bag is slow or fast. The clock goes on when the page is
 * closed. Usage: <SpoonTest v-model="open" :bag :plaster />
 */
import { newId } from '~~/shared/newId'
import { figure } from '~/parts/show/figures'
import { useKept } from '~/stores/kept'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import { propertiesOfCard, spoonTestForecastS, spoonTestRatio } from '#core/stock'
import { useClock, useNow } from '~/stores/bench'
import { useProblems } from '~/parts/form/useProblems'
import { useSheetDraft } from '~/parts/form/useSheetDraft'
import { useWorkshop } from '~/stores/workshop'
import { paceWords } from '~/parts/words/mix'
import { durationRangeText, spanText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import type { BagCard, PlasterCard } from '~~/shared/stock'

const props = defineProps<{ bag: BagCard | undefined; plaster: PlasterCard | undefined }>()
const open = defineModel<boolean>({ required: true })
const workshop = useWorkshop()
const now = useNow()

interface Running {
  bagId: string
  id: string
  startMs: number
  consistency: number
  waterTempC: number
}
const running = useKept<Running | null>('nine-ripples.spoon-test', null, {
  serializer: { read: (raw) => JSON.parse(raw) as Running | null, write: JSON.stringify },
})
const mine = computed(() => (running.value?.bagId === props.bag?.id ? running.value : null))
/** Long enough to be lump-free. */
const STIR_S = 60

const consistency = ref(70)
const waterTempC = ref(20)
const clock = useClock()
const { note, clear, none } = useProblems()
const failure = ref('')
useSheetDraft(
  open,
  () => props.bag?.id,
  () => {
    if (props.plaster) consistency.value = propertiesOfCard(props.plaster.label).useConsistency
    waterTempC.value = workshop.settings.tapTempC
    clear()
    failure.value = ''
  },
)
const forecast = computed(() =>
  props.plaster
    ? spoonTestForecastS(propertiesOfCard(props.plaster.label), {
        consistency: mine.value?.consistency ?? consistency.value,
        waterTempC: mine.value?.waterTempC ?? waterTempC.value,
        stirS: STIR_S,
      })
    : undefined,
)

function start() {
  if (!props.bag || !none.value) return
  running.value = {
    bagId: props.bag.id,
    id: newId(),
    startMs: clock.nowMs(),
    consistency: consistency.value,
    waterTempC: waterTempC.value,
  }
}
const LEAST_S = 30
const tooSoon = computed(() => mine.value !== null && now.value - mine.value.startMs < LEAST_S * 1000)
async function stop() {
  if (!mine.value) return
  const { bagId, id, startMs, ...mix } = mine.value
  const atMs = Math.round(clock.nowMs())
  const test = { id, atMs, ...mix, stirS: STIR_S, tookS: Math.min(14_400, (atMs - startMs) / 1000) }
  const answer = await workshop.addSpoonTest(bagId, test)
  if (answer.ok) running.value = null
  else failure.value = failureWords(answer.failure)
}
const results = computed(() =>
  (props.bag?.spoonTests ?? []).map((t) => {
    const ratio = props.plaster ? spoonTestRatio(propertiesOfCard(props.plaster.label), t) : 1
    return { ...t, words: paceWords(ratio) }
  }),
)
async function forget(id: string) {
  const answer = await workshop.deleteSpoonTest(id)
  if (!answer.ok) failure.value = failureWords(answer.failure)
}
</script>

<template>
  <SheetDialog v-model="open" :title="`A spoonful of ${bag?.name ?? ''}`">
    <template v-if="bag && plaster">
      <template v-if="mine">
        <p class="figure clock" role="timer">{{ spanText(now - mine.startMs) }}</p>
        <p>
          Stir for a minute, then leave it on a piece of card. Now and then cut it with a knife: the moment
          the cut stays open, strike.
          <template v-if="forecast"
            >Expected between {{ durationRangeText(forecast.low, forecast.high) }}.</template
          >
        </p>
        <Button class="big" label="The cut stays open" :disabled="tooSoon" @click="stop" />
        <Button severity="secondary" label="Give this test up" @click="running = null" />
      </template>
      <template v-else>
        <p>
          Sift a spoonful into a spoonful’s water, weighed if you can. Start the clock when powder meets
          water.
        </p>
        <div class="pair">
          <QuantityField
            v-model="consistency"
            kind="number"
            :decimals="1"
            label="Ratio"
            suffix="water to 100"
            :min="15"
            :max="200"
            @problem="note('consistency', $event)"
          />
          <QuantityField
            v-model="waterTempC"
            kind="temp"
            label="Water"
            :min="1"
            :max="45"
            @problem="note('water', $event)"
          />
        </div>
        <CautionNote id="dust" />
        <Button class="big" label="Powder meets water" :disabled="!none" @click="start" />
      </template>
      <ul v-if="results.length > 0">
        <li v-for="r in results" :key="r.id">
          <span>{{ spanText(r.tookS * 1000) }} at {{ figure(r.consistency) }}: <b>{{ r.words }}</b></span>
          <Button severity="secondary" label="Forget it" @click="forget(r.id)" />
        </li>
      </ul>
      <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    </template>
  </SheetDialog>
</template>

<style scoped>
.clock {
  font-size: 4.2rem;
}
.big {
  min-height: 4rem;
  font-size: 1.2rem;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--s3);
  border-top: 1px solid var(--line);
  padding: var(--s1) 0;
}
</style>
