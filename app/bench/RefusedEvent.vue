<script setup lang="ts">
/** One event that the server would not take: what, when, why, and what can be done. Usage: <RefusedEvent :row :now-ms /> */
import { format } from 'date-fns'
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { clockSettingMs } from '~/stores/clock'
import { useUnits } from '~/parts/show/useUnits'
import { useOutbox } from '~/stores/outbox'
import { usePours } from '~/stores/pours'
import type { Refused } from '~/stores/eventBox'
import { correctedEvent } from './correctedEvent'
import { momentText } from '~/parts/show/time'
import { eventWords } from '~/parts/words/events'
import { failureWords } from '~/parts/words/errors'

const props = defineProps<{ row: Refused; nowMs: number }>()
const outbox = useOutbox()
const pours = usePours()
const units = useUnits()

const body = computed(() => props.row.event.body)
const piece = computed(() => pours.records.get(props.row.pourId)?.plan.piece)
void pours.load(props.row.pourId)

const correcting = ref(false)
const at = ref(format(props.row.event.occurredAtMs, "yyyy-MM-dd'T'HH:mm:ss"))
const massG = ref('massG' in props.row.event.body ? props.row.event.body.massG : undefined)
const text = ref(props.row.event.body.type === 'note' ? props.row.event.body.text : undefined)
const problem = ref('')
const corrected = computed(() =>
  problem.value
    ? undefined
    : correctedEvent(props.row.event, { at: at.value, massG: massG.value, text: text.value }),
)
function sendCorrected() {
  // What is typed now is told by the clock as it is set now.
  if (corrected.value) void outbox.sendAgain(props.row, corrected.value, clockSettingMs())
}
</script>

<template>
  <section class="slab refused">
    <div>
      <h2>{{ eventWords(body, units) }}</h2>
      <p class="soft">
        <NuxtLink :to="`/casts/${row.pourId}`">{{ piece ?? 'Its pour' }}</NuxtLink>
        · {{ momentText(row.event.occurredAtMs, nowMs) }}
      </p>
      <p class="why">{{ failureWords(row) }}</p>
    </div>
    <form v-if="correcting" class="fields" novalidate @submit.prevent="sendCorrected">
      <label class="field"
        ><span>It happened at</span><InputText v-model="at" type="datetime-local" step="1"
      /></label>
      <QuantityField
        v-if="massG !== undefined"
        v-model="massG"
        kind="mass"
        label="It weighed"
        :min="0.1"
        :max="1000000"
        @problem="problem = $event"
      />
      <label v-if="text !== undefined" class="field"
        ><span>Note</span><InputText v-model="text" maxlength="2000"
      /></label>
      <Button type="submit" label="Send it corrected" :disabled="!corrected" />
    </form>
    <div class="acts">
      <Button label="Send again" @click="outbox.sendAgain(row)" />
      <Button v-if="!correcting" severity="secondary" label="Correct it" @click="correcting = true" />
      <Button severity="secondary" label="Throw away" @click="outbox.forget(row.event.id)" />
    </div>
  </section>
</template>

<style scoped>
.refused {
  display: grid;
  gap: var(--s3);
}
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
  align-items: end;
}
.field {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
}
.why {
  color: var(--hot);
  font-weight: 600;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s3);
}
</style>
