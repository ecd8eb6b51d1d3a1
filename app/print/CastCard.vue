<script setup lang="ts">
/** A card that stays with the piece: how it was made, how it came out and why, and a code that leads back to its record. */
import { computed } from 'vue'
import { diagnosePour, faultsOf } from '#core/pour'
import { photosOf } from '~/parts/pour/photosOf'
import { usePour } from '~/parts/pour/usePour'
import { percent } from '~/parts/show/figures'
import { dayText } from '~/parts/show/time'
import { useUnits } from '~/parts/show/useUnits'
import { CAUSE_WORDS } from '~/parts/words/causes'
import { faultText } from '~/parts/words/faults'
import { verdictText, whichPieces } from '~/parts/words/pieces'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { useWorkshop } from '~/stores/workshop'
import { qrPath } from '~/parts/show/qr'

const { id } = defineProps<{ id: string }>()
const workshop = useWorkshop()
const now = useNowBy(MS_PER.min)
const units = useUnits()
const { record, facts, failure } = usePour(id)

const code = qrPath(`${location.origin}/casts/${id}`)
const photo = computed(() => facts.value && photosOf(facts.value).at(-1))
const faults = computed(() => (facts.value ? faultsOf(facts.value) : []).map((f, i) => ({ ...f, n: i + 1 })))
const marks = computed(() =>
  faults.value.flatMap(({ n, spot, photoId }) => (spot && photoId === photo.value?.id ? [{ n, spot }] : [])),
)
/** More likely than not: a card is no place for what may be. */
const causes = computed(() =>
  facts.value && faults.value.length > 0
    ? diagnosePour(facts.value).causes.filter((c) => c.chance > 0.5)
    : [],
)
const whichOf = (numbers: readonly number[]) => {
  const which = whichPieces(numbers, facts.value?.pieces.length ?? 0)
  return which && `, ${which}`
}
const notes = computed(
  () => facts.value?.live.flatMap(({ body }) => (body.type === 'note' ? [body.text] : [])) ?? [],
)
const made = computed(() => {
  const at = facts.value?.doneAtMs.demould ?? record.value?.createdAtMs
  const who = facts.value?.live.findLast((e) => e.who !== '')?.who
  return [at === undefined ? '' : dayText(at, now.value), who, workshop.settings.workshopName]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <PrintPage :back="`/casts/${id}`" back-name="Back to the cast">
    <article v-if="record && facts" class="paper">
      <header>
        <div>
          <h1>{{ record.plan.piece }}</h1>
          <p>{{ made }}</p>
          <p>
            {{ record.plan.mould.name }} · {{ facts.plan.plaster.name
            }}<template v-if="facts.plan.plaster.bag"> · {{ facts.plan.plaster.bag.name }}</template>
          </p>
          <p v-if="facts.verdict"><b>{{ verdictText(facts.pieces) }}.</b> {{ facts.verdict.reason }}</p>
        </div>
        <svg :viewBox="`0 0 ${code.size} ${code.size}`" role="img" aria-label="Code that leads to its record">
          <path :d="code.path" />
        </svg>
      </header>
      <div class="lists">
        <section>
          <h2>How it was made</h2>
          <ComparisonTable :facts="facts" />
        </section>
        <section>
          <FaultBoard :facts="facts" :photo-id="photo?.id" :marks="marks" :marking="false" />
          <template v-if="faults.length > 0">
            <h2>What is wrong with it</h2>
            <ol>
              <li v-for="f in faults" :key="f.eventId">{{ faultText(f, units) }}{{ whichOf(f.pieces) }}</li>
            </ol>
          </template>
          <template v-for="cause in causes" :key="cause.cause">
            <p>
              <b>{{ CAUSE_WORDS[cause.cause].name }}</b>, {{ percent(cause.chance) }}.
              {{ CAUSE_WORDS[cause.cause].next }}
            </p>
          </template>
        </section>
      </div>
      <p v-for="note in notes" :key="note">{{ note }}</p>
    </article>
    <h1 v-else>{{ failure || 'Fetching the record…' }}</h1>
  </PrintPage>
</template>

<style scoped>
header {
  display: flex;
  justify-content: space-between;
  gap: var(--s5);
}
header svg {
  width: 26mm;
  height: 26mm;
  flex: none;
}
section {
  display: grid;
  gap: var(--s2);
  align-content: start;
}
ol {
  margin: 0;
  padding-left: 1.4rem;
}
@media print {
  .paper {
    padding: 0;
    border-radius: 0;
  }
}
</style>
