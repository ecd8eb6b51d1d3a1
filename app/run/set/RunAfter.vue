<script setup lang="ts">
/**
 * The bowl is empty, the mould sets: what is left over, what can be done while it is soft, and cleaning up.
 * Usage: <RunAfter :facts :pour-id :now-ms :soft-window @record />
 */
import { newId } from '~~/shared/newId'
import Button from 'primevue/button'
import { computed, ref } from 'vue'
import {
  CLEAN_UPS,
  SOFT_WORKS,
  takePlan,
  leftoverNow,
  leftoverPour,
  planMould,
  type Clock,
  type EventBody,
  type PourOutlook,
} from '#core/pour'
import { memberOf } from '~/parts/mould/shelf'
import { useUnits } from '~/parts/show/useUnits'
import { momentText } from '~/parts/show/time'
import { failureWords } from '~/parts/words/errors'
import { CLEAN_UP_WORDS, SOFT_WORK_WORDS } from '~/parts/words/pour'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'

const props = defineProps<{
  facts: PourOutlook
  pourId: string
  nowMs: number
  /** When it holds a line; undefined once that is over. */
  softWindow: Clock | undefined
}>()
const emit = defineEmits<{ record: [body: EventBody] }>()
const units = useUnits()
const pours = usePours()
const workshop = useWorkshop()

const left = computed(() => leftoverNow(props.facts, props.nowMs))
/** Into moulds that are still on the shelf. */
const fills = computed(() =>
  left.value.flows ? left.value.fills.filter((f) => workshop.moulds.some((m) => m.id === f.mouldId)) : [],
)
const isOpen = computed(() => props.softWindow !== undefined && props.nowMs >= props.softWindow.dueMs)

/** The bowl whose yield is learnt; undefined where the plan names none. */
const bowl = computed(() => {
  const { bowlId, name } = props.facts.plan.batching?.bowl ?? {}
  return bowlId ? name : undefined
})
const measured = computed(() => props.facts.live.some((e) => e.body.type === 'left_over'))
const overMl = ref<number>()
const overProblem = ref('')
function measure() {
  if (overMl.value !== undefined && overProblem.value === '')
    emit('record', { type: 'left_over', volumeMl: overMl.value })
}

const busy = ref(false)
const failure = ref('')
/** Made once for each mould: an answer that gets lost, and it is still one pour. */
const ids = new Map<string, string>()
async function pourInto(fill: (typeof fills.value)[number]) {
  const card = workshop.moulds.find((m) => m.id === fill.mouldId)
  const mould = card && planMould([memberOf(card, 1)])
  if (!mould || busy.value) return
  busy.value = true
  failure.value = ''
  const id = ids.get(fill.mouldId) ?? newId()
  ids.set(fill.mouldId, id)
  const { plan, events } = leftoverPour(props.facts, props.pourId, mould, fill, props.nowMs)
  const answer = await pours.create(takePlan(plan), id)
  busy.value = false
  if (!answer.ok) {
    failure.value = failureWords(answer.failure)
    return
  }
  await pours.recordAt(id, events)
  emit('record', { type: 'leftover_poured', mouldId: fill.mouldId, fillMl: fill.fillMl })
}
</script>

<template>
  <section v-if="fills.length > 0" class="after" aria-labelledby="left-over">
    <h2 id="left-over">Left over: about {{ units.roughVolume(left.leftMl) }}</h2>
    <div class="fills">
      <Button
        v-for="fill in fills"
        :key="fill.mouldId"
        severity="secondary"
        :disabled="busy"
        :label="`Poured into ${fill.name} (${units.roughVolume(fill.fillMl)})`"
        @click="pourInto(fill)"
      />
    </div>
    <p v-if="failure" role="alert">{{ failure }}</p>
  </section>
  <details v-if="bowl && !measured" class="after">
    <summary>Measure what is left over: {{ bowl }} learns what it gives</summary>
    <form class="fills" @submit.prevent="measure">
      <QuantityField
        v-model="overMl"
        kind="volume"
        label="Left over"
        :min="0"
        :max="500000"
        @problem="overProblem = $event"
      />
      <Button type="submit" label="Note it" :disabled="overMl === undefined || overProblem !== ''" />
    </form>
  </details>
  <section v-if="softWindow" class="after" aria-labelledby="while-soft">
    <h2 id="while-soft">
      {{
        isOpen
          ? `It holds a line, until about ${momentText(softWindow.untilMs!, nowMs)}`
          : `Marks and trimming from about ${momentText(softWindow.dueMs, nowMs)}`
      }}
    </h2>
    <TickList
      v-if="isOpen"
      label="While it holds a line"
      :items="SOFT_WORKS"
      :words="SOFT_WORK_WORDS"
      :facts="facts"
      :make="(work) => ({ type: 'worked_soft', work })"
      @record="emit('record', $event)"
    />
    <p v-if="facts.plan.mould.kind === 'ground'">
      Cut round it and clear the ground from the ring outside: air gets to it, and it comes out easier.
    </p>
  </section>
  <details class="after">
    <summary>Clean up</summary>
    <TickList
      label="Clean up"
      :items="CLEAN_UPS"
      :words="CLEAN_UP_WORDS"
      :facts="facts"
      :make="(what) => ({ type: 'cleaned_up', what })"
      @record="emit('record', $event)"
    />
  </details>
</template>

<style scoped>
.after {
  display: grid;
  gap: var(--s2);
}
h2,
summary {
  font-size: 1.15rem;
  font-weight: 700;
}
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
.fills {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
</style>
