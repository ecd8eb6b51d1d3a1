<script setup lang="ts">
import Button from 'primevue/button'
import { startOfDay } from 'date-fns'
import { computed, defineAsyncComponent } from 'vue'
import { STAGES, dryingAhead, viewPour } from '#core/pour'
import { MS_PER } from '#core/units'
import { fileName } from '~/parts/show/saveFile'
import { useNowBy } from '~/stores/bench'
import { usePour } from '~/parts/pour/usePour'
import { useWorkshop } from '~/stores/workshop'
import { useUnits } from '~/parts/show/useUnits'
import { counted } from '~/parts/show/counted'
import { dryingLeft } from '~/parts/pour/dryingLeft'
import { verdictText } from '~/parts/words/pieces'
import { DRY_TARGET_WORDS, STAGE_WORDS } from '~/parts/words/pour'
import { planSentence, sentenceText } from '~/parts/words/planSentence'
import { issueWords } from '~/parts/words/mix'

// Drawn on this page only; the bench should not wait for it.
const DryingChart = defineAsyncComponent(() => import('~/parts/dry/DryingChart.vue'))

const { id } = defineProps<{ id: string }>()
const units = useUnits()
const workshop = useWorkshop()
const now = useNowBy(MS_PER.s)

const { record, facts, unreadable, failure } = usePour(id)
const view = computed(() => facts.value && viewPour(facts.value, now.value))
/** Where what it was cast from was found and measured. */
const printId = computed(
  () =>
    record.value?.plan.mould.members?.find((m) =>
      workshop.moulds.some((card) => card.id === m.mouldId && card.find),
    )?.mouldId,
)
const history = computed(() => [...(facts.value?.live ?? [])].reverse())
const todayMs = computed(() => startOfDay(now.value).getTime())
/** By the minute: dates do not move faster. */
const minute = useNowBy(MS_PER.min)
const ahead = computed(() => facts.value && dryingAhead(facts.value, minute.value))
const drying = computed(() => facts.value?.drying && dryingLeft(facts.value.drying, facts.value, now.value))
</script>

<template>
  <div v-if="record && facts && view" class="page">
    <header class="slab top">
      <RingSign
        :rings="view.rings"
        :size="150"
        :label="`${STAGE_WORDS[view.stage]}, stage ${STAGES.indexOf(view.stage) + 1} of 9`"
        :failed="view.status === 'failed'"
      />
      <div class="title">
        <h1>{{ record.plan.piece }}</h1>
        <p class="soft">
          {{ sentenceText(planSentence({ ...facts.plan, piece: '' }, units)) }}
        </p>
        <p v-if="facts.verdict" class="verdict">
          <b>{{ verdictText(facts.pieces) }}.</b> {{ facts.verdict.reason }}
        </p>
        <p v-else class="verdict"><b>{{ STAGE_WORDS[view.stage] }}.</b> Still on the go.</p>
      </div>
      <div class="act">
        <Button v-if="!facts.verdict" as="router-link" :to="`/pour/${id}`" label="Go to the run" />
        <Button
          severity="secondary"
          as="router-link"
          :to="{ path: '/plan', query: { from: id } }"
          label="Pour it again"
        />
        <Button
          v-if="printId"
          severity="secondary"
          as="router-link"
          :to="`/field/prints/${printId}`"
          label="Its print"
        />
        <Button severity="secondary" as="router-link" :to="`/casts/${id}/label`" label="Label" />
        <Button severity="secondary" as="router-link" :to="`/casts/${id}/card`" label="Card" />
        <BundleButton :request="{ of: 'pour', id }" />
      </div>
    </header>
    <RecordedTwice :facts="facts" :pour-id="id" />
    <template v-if="facts.pieces.some((p) => p.out) || facts.verdict">
      <CastPieces v-if="facts.pieces.length > 1" :facts="facts" />
      <InspectPiece :facts="facts" :pour-id="id" :now-ms="now" />
      <WhyThis :facts="facts" :pour-id="id" />
      <InUse v-if="facts.verdict" :facts="facts" :pour-id="id" :now-ms="now" />
    </template>
    <div class="columns">
      <div class="column">
        <section v-if="facts.drying && drying" class="slab" aria-labelledby="drying-title">
          <h2 id="drying-title">Drying</h2>
          <p v-if="!facts.verdict">
            Dry enough to {{ DRY_TARGET_WORDS[record.plan.dryTarget] }}
            <b>{{ drying.dry ? 'now, by the forecast' : `in ${drying.text}` }}</b>.
            {{
              drying.weighingsUsed >= 2
                ? `Learnt from ${counted(drying.weighingsUsed, 'weighing')}`
                : 'A model’s guess until there are two weighings'
            }}; it should settle at {{ units.mass(facts.drying.forecast.dryMassG) }} ±
            {{ units.mass(facts.drying.forecast.dryMassSdG) }}.
          </p>
          <DryingChart :drying="facts.drying" :file-name="fileName(record.plan.piece, 'drying')" />
          <template v-if="ahead && !facts.verdict">
            <DryDates :dates="ahead.dates" :now-ms="now" />
            <DrySavings :savings="ahead.savings" />
          </template>
        </section>
        <section class="slab" aria-labelledby="plan-title">
          <h2 id="plan-title">Plan against what happened</h2>
          <ComparisonTable :facts="facts" />
          <p v-for="issue in facts.issues" :key="issue.code" class="soft">{{ issueWords(issue, units) }}</p>
        </section>
      </div>
      <section class="slab" aria-labelledby="events-title">
        <h2 id="events-title">What happened</h2>
        <ol v-if="history.length" class="events">
          <CastEvent v-for="event in history" :key="event.id" :event="event" :today-ms="todayMs" />
        </ol>
        <p v-else class="soft">Nothing yet: it is only a plan.</p>
      </section>
    </div>
  </div>
  <RawRecord v-else-if="unreadable" :pour="unreadable" />
  <div v-else class="page">
    <h1>{{ failure || 'Fetching the record…' }}</h1>
    <NuxtLink v-if="failure" to="/casts">Back to the log</NuxtLink>
  </div>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s5);
}
.title {
  display: grid;
  gap: var(--s2);
  flex: 1;
  min-width: 14rem;
}
.act {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.verdict {
  font-size: 1.15rem;
  max-width: 60ch;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
  gap: var(--s4);
  align-items: start;
}
.column,
.slab {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s4);
}
.top {
  display: flex;
}
.events {
  list-style: none;
  margin: 0;
  padding: 0;
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
