<script setup lang="ts">
/** What the log comes to: each bar leads to its pours. */
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { VERDICTS } from '#core/pour'
import { counted } from '~/parts/show/counted'
import { figure, percent, plain } from '~/parts/show/figures'
import { castsOf, wearOfCard } from '~/parts/mould/shelf'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { FAULT_WORDS } from '~/parts/words/faults'
import { ERROR_WORDS } from '~/parts/words/errors'
import { VERDICT_WORDS } from '~/parts/words/pour'
import { callApi } from '~/stores/api'
import { useWorkshop } from '~/stores/workshop'
import type { Figures } from '~~/shared/figures'
import FigureBars from './FigureBars.vue'

const workshop = useWorkshop()
const months = ref<'3' | '12' | '120'>('12')
const SPANS = [
  { value: '3', label: 'Three months' },
  { value: '12', label: 'A year' },
  { value: '120', label: 'All of it' },
] as const
const found = shallowRef<Figures>()
const failure = ref('')
/** Causes are worked out a few pours at a time. */
const MOST_ROUNDS = 40
let asked = 0
async function load() {
  const mine = ++asked
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const answer = await callApi<Figures>('/api/figures', { query: { months: months.value } })
    if (mine !== asked) return
    failure.value = answer.ok ? '' : ERROR_WORDS[answer.failure.code]
    if (!answer.ok) return
    found.value = answer.value
    if (answer.value.pending === 0) return
  }
}
watch(months, load)
onMounted(load)

const ended = computed(() => {
  const sums = Object.fromEntries(VERDICTS.map((v) => [v, 0])) as Figures['months'][number]['verdicts']
  for (const { verdicts } of found.value?.months ?? []) for (const v of VERDICTS) sums[v] += verdicts[v]
  return sums
})
const all = computed(() => VERDICTS.reduce((sum, v) => sum + ended.value[v], 0))
const wholeShare = computed(() => (all.value ? (ended.value.good + ended.value.usable) / all.value : 0))
const log = (query: Record<string, string>) => ({ path: '/casts', query })
const nameOf = (list: readonly { id: string; name: string }[], id: string) =>
  list.find((c) => c.id === id)?.name ?? 'no longer on the shelf'

const verdictBars = computed(() =>
  VERDICTS.filter((v) => ended.value[v] > 0).map((v) => ({
    key: v,
    label: VERDICT_WORDS[v],
    value: ended.value[v],
    text: counted(ended.value[v], 'cast'),
    to: log({ verdict: v }),
  })),
)
const causeBars = computed(() =>
  (found.value?.causes ?? []).map(({ cause, casts }) => ({
    key: cause,
    label: CAUSE_WORDS[cause].name,
    value: casts,
    text: counted(casts, 'cast'),
    to: log({ tags: `cause:${cause}` }),
  })),
)
const faultBars = computed(() =>
  (found.value?.faults ?? []).map(({ kind, casts }) => ({
    key: kind,
    label: FAULT_WORDS[kind],
    value: casts,
    text: counted(casts, 'cast'),
    to: log({ tags: `fault:${kind}` }),
  })),
)
const dryingBars = computed(() =>
  (found.value?.drying ?? []).map(({ placeId, days, pours }) => ({
    key: placeId,
    label: nameOf(workshop.places, placeId),
    value: days,
    text: `${counted(Math.round(days * 2) / 2, 'day')}, ${counted(pours, 'pour')}`,
    to: log({ tags: `place:${placeId}` }),
  })),
)
const costBars = computed(() =>
  (found.value?.costs ?? []).map(({ plasterId, casts, cost }) => ({
    key: plasterId,
    label: nameOf(workshop.plasters, plasterId),
    value: cost / casts,
    text: `${figure(cost / casts, 2)} ${workshop.settings.currency} a cast, ${counted(casts, 'cast')}`,
    to: log({ tags: `plaster:${plasterId}` }),
  })),
)
/** Those that are through most of their life. */
const mouldBars = computed(() =>
  workshop.moulds
    .flatMap((card) => {
      const wear = wearOfCard(card)
      if (!wear || castsOf(card) === 0) return []
      return [
        {
          key: card.id,
          label: card.name,
          value: Math.min(1, castsOf(card) / wear.life.high),
          text: `${counted(castsOf(card), 'cast')} of ${plain(Math.round(wear.life.low))} to ${plain(Math.round(wear.life.high))}`,
          over: castsOf(card) >= wear.life.high,
          to: log({ tags: `mould:${card.id}` }),
        },
      ]
    })
    .sort((a, b) => b.value - a.value)
    .slice(0, 8),
)
</script>

<template>
  <div class="page">
    <h1>What the log says</h1>
    <ChoicePills v-model="months" label="Over how long" :options="SPANS" />
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-else-if="!found" class="soft" role="status">Counting…</p>
    <p v-else-if="all === 0" class="soft">Nothing has ended in this time.</p>
    <template v-else>
      <p class="lead">
        <b>{{ percent(wholeShare) }}</b> of {{ counted(all, 'cast') }} came out good or usable.
        <span v-if="found.pending > 0" class="soft">Still looking for causes…</span>
      </p>
      <div class="charts">
        <FigureBars title="How they ended" :bars="verdictBars" />
        <FigureBars
          title="Why they failed"
          :bars="causeBars"
          empty="No cause stands out. Note what is wrong on the piece’s own page."
        />
        <FigureBars title="What was wrong" :bars="faultBars" empty="Nothing was noted." />
        <FigureBars
          title="Days to dry, by place"
          :bars="dryingBars"
          empty="Give pieces a place to dry in, and it counts."
        />
        <FigureBars title="What a cast costs" :bars="costBars" empty="Bags have no price yet." />
        <FigureBars title="How far moulds are through their life" :bars="mouldBars" empty="No casts yet." />
      </div>
    </template>
  </div>
</template>

<style scoped>
.lead {
  font-size: 1.3rem;
}
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
  gap: var(--s4);
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
</style>
