<script setup lang="ts">
import Button from 'primevue/button'
import { computed, defineAsyncComponent } from 'vue'
import { STAGES, viewPour } from '#core/pour'
import { useNow } from '~/stores/bench'
import { usePour } from '~/parts/pour/usePour'
import { useUnits } from '~/parts/show/useUnits'
import { counted } from '~/parts/show/counted'
import { comparisonOf } from './comparison'
import { dryingLeft } from '~/parts/pour/dryingLeft'
import { momentText } from '~/parts/show/time'
import { DRY_TARGET_WORDS, STAGE_WORDS, VERDICT_WORDS, eventWords } from '~/parts/words/pour'
import { issueWords } from '~/parts/words/mix'

// Drawn on this page only; the bench should not wait for it.
const DryingChart = defineAsyncComponent(() => import('./DryingChart.vue'))

const { id } = defineProps<{ id: string }>()
const units = useUnits()
const now = useNow()

const { record, facts, unreadable, failure } = usePour(id)
const view = computed(() => facts.value && viewPour(facts.value, now.value))
const rows = computed(() => (facts.value ? comparisonOf(facts.value, units) : []))
const history = computed(() => [...(facts.value?.live ?? [])].reverse())
const defects = computed(() => facts.value?.live.filter((e) => e.body.type === 'defect') ?? [])
const drying = computed(() => facts.value?.drying && dryingLeft(facts.value.drying, now.value))
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
        <p class="soft">{{ record.plan.mould.name }} · {{ record.plan.plaster.name }}</p>
        <h1>{{ record.plan.piece }}</h1>
        <p v-if="facts.verdict" class="verdict">
          <b>{{ VERDICT_WORDS[facts.verdict.verdict] }}.</b> {{ facts.verdict.reason }}
        </p>
        <p v-else class="verdict">
          <b>{{ STAGE_WORDS[view.stage] }}.</b> Still on the go.
        </p>
        <p v-if="defects.length" class="soft">
          Noted: {{ defects.map((d) => eventWords(d.body, units).toLowerCase()).join(', ') }}
        </p>
      </div>
      <Button v-if="!facts.verdict" as="router-link" :to="`/pour/${id}`" label="Go to the run" />
    </header>
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
          <DryingChart :drying="facts.drying" />
        </section>
        <section class="slab" aria-labelledby="plan-title">
          <h2 id="plan-title">Plan against what happened</h2>
          <table>
            <thead>
              <tr>
                <th scope="col"><span class="visually-hidden">What</span></th>
                <th scope="col">Plan</th>
                <th scope="col">Happened</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.what" :class="{ off: row.off }">
                <th scope="row">{{ row.what }}</th>
                <td>{{ row.planned }}</td>
                <td>{{ row.happened }}<span v-if="row.off"> ≠</span></td>
              </tr>
            </tbody>
          </table>
          <p v-for="issue in facts.issues" :key="issue.code" class="soft">{{ issueWords(issue, units) }}</p>
        </section>
      </div>
      <section class="slab" aria-labelledby="events-title">
        <h2 id="events-title">What happened</h2>
        <ol v-if="history.length" class="events">
          <li v-for="event in history" :key="event.id" :class="event.body.type">
            <span class="soft">{{ momentText(event.occurredAtMs, now) }}</span>
            <span>{{ eventWords(event.body, units) }}</span>
            <span class="soft">{{ event.who }}</span>
          </li>
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
.page {
  width: 100%;
  display: grid;
  gap: var(--s4);
  align-content: start;
}
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
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: right;
  padding: var(--s2) 0 var(--s2) var(--s3);
  border-bottom: 1px solid var(--line);
  font-weight: 400;
}
th[scope='row'] {
  text-align: left;
  padding-left: 0;
  font-weight: 600;
}
.off td:last-child {
  font-weight: 700;
}
.events {
  list-style: none;
  margin: 0;
  padding: 0;
}
.events li {
  display: grid;
  grid-template-columns: 9.2rem 1fr auto;
  gap: var(--s3);
  padding: 0.4rem 0;
  border-bottom: 1px solid var(--line);
}
.events .note span:nth-child(2) {
  font-style: italic;
}
.events .finished,
.events .demoulded {
  font-weight: 700;
}
@media (max-width: 60rem) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
  .events li {
    grid-template-columns: 6.5rem 1fr auto;
  }
}
</style>
