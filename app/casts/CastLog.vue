<script setup lang="ts">
import { figure } from '~/parts/show/figures'
import { X } from '@lucide/vue'
import Button from 'primevue/button'
import Checkbox from 'primevue/checkbox'
import Column from 'primevue/column'
import DataTable from 'primevue/datatable'
import InputText from 'primevue/inputtext'
import { computed, ref } from 'vue'
import { FAULT_KINDS } from '#core/finish'
import { VERDICTS, castsOut, countedBy, viewPour } from '#core/pour'
import type { CastLine } from '~~/shared/records'
import { MS_PER } from '#core/units'
import { useNowBy } from '~/stores/bench'
import { usePours } from '~/stores/pours'
import { useWorkshop } from '~/stores/workshop'
import { FAULT_WORDS } from '~/parts/words/faults'
import { useCastPage, type CastFilter } from './useCastPage'
import { tagWords } from './words'
import { dayText } from '~/parts/show/time'
import { byKind } from '~/parts/words/pieces'
import { STAGE_WORDS, VERDICT_WORDS } from '~/parts/words/pour'
import { counted } from '~/parts/show/counted'

const pours = usePours()
/** A whole table is drawn anew by it, and a ring's part moves no faster. */
const now = useNowBy(15 * MS_PER.s)

const FILTERS: { value: CastFilter; label: string }[] = [
  { value: 'all', label: 'All casts' },
  { value: 'open', label: 'Still on the go' },
  ...VERDICTS.map((value) => ({ value, label: VERDICT_WORDS[value] })),
]
const route = useRoute()
const search = ref('')
/** Of which mould, bag or place, with which fault or cause: brought along by whoever led here. */
const tags = ref(
  String(route.query.tags ?? '')
    .split(',')
    .filter(Boolean),
)
const marked = ref<string[]>([])
const workshop = useWorkshop()
const asked = FILTERS.find((f) => f.value === useRoute().query.verdict)?.value
const filter = ref<CastFilter>(asked ?? 'all')
const { page, loading, failure, found, isKept, isFirst, load, older, newer } = useCastPage(
  search,
  filter,
  tags,
)
const tagLabels = computed(() => tags.value.map((tag) => ({ tag, label: tagWords(tag, workshop) })))
const faultOptions = [
  { value: '', label: 'Any' },
  ...FAULT_KINDS.map((value) => ({ value: `fault:${value}`, label: FAULT_WORDS[value] })),
]
const fault = computed({
  get: () => tags.value.find((t) => t.startsWith('fault:')) ?? '',
  set: (tag) => (tags.value = [...tags.value.filter((t) => !t.startsWith('fault:')), ...(tag ? [tag] : [])]),
})
const mouldOptions = computed(() => [
  { value: '', label: 'Any' },
  ...workshop.moulds.map((m) => ({ value: `mould:${m.id}`, label: m.name })),
])
const mould = computed({
  get: () => tags.value.find((t) => t.startsWith('mould:')) ?? '',
  set: (tag) => (tags.value = [...tags.value.filter((t) => !t.startsWith('mould:')), ...(tag ? [tag] : [])]),
})
function mark(id: string) {
  marked.value = marked.value.includes(id)
    ? marked.value.filter((m) => m !== id)
    : [...marked.value, id].slice(-2)
}
/** Of a pour that is known here, what it is this moment; of the others, what the log says. */
function lineNow(
  line: CastLine,
): Pick<CastLine, 'rings' | 'stage' | 'verdict' | 'ended' | 'casts' | 'reason'> & { failed: boolean } {
  const record = pours.records.get(line.id)
  const facts = record && pours.factsOf(record)
  if (!facts)
    return { ...line, failed: line.verdict === 'failed' || line.verdict === 'abandoned' || line.unreadable }
  const view = viewPour(facts, now.value)
  return {
    rings: view.rings,
    stage: view.stage,
    failed: view.status === 'failed',
    verdict: facts.verdict?.verdict ?? null,
    ended: countedBy(facts.pieces, (p) => p.verdict?.verdict),
    casts: castsOut(facts.pieces),
    reason: facts.verdict?.reason ?? '',
  }
}
const rows = computed(() =>
  page.value.items.map((line) => {
    const { rings, stage, failed, verdict, ended, casts, reason } = lineNow(line)
    const state = verdict ? byKind(ended, VERDICT_WORDS) : STAGE_WORDS[stage]
    return {
      ...line,
      rings,
      failed,
      reason,
      count: casts > 1 ? counted(casts, 'cast') : '',
      ratio: line.consistency === null ? '' : `${figure(line.consistency)} water to 100`,
      state: line.unreadable ? 'Cannot be read' : state,
      day: dayText(line.createdAtMs, now.value),
    }
  }),
)
function open(event: { data: { id: string } }) {
  void navigateTo(`/casts/${event.data.id}`)
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Casts</h1>
      <Button severity="secondary" as="router-link" to="/casts/figures" label="What the log says" />
      <Button
        v-if="marked.length === 2"
        as="router-link"
        :to="{ path: '/casts/compare', query: { of: marked.join() } }"
        label="Lay the two side by side"
      />
    </header>
    <div class="find">
      <label class="search"
        ><span>Search</span>
        <InputText v-model="search" type="search" placeholder="piece, mould or plaster" />
      </label>
      <LabelledSelect v-model="filter" label="Show" :options="FILTERS" />
      <LabelledSelect v-model="mould" label="Of the mould" :options="mouldOptions" />
      <LabelledSelect v-model="fault" label="With" :options="faultOptions" />
      <p class="soft count" role="status">{{ loading ? 'Looking…' : found }}</p>
    </div>
    <p v-if="tagLabels.length > 0" class="tags">
      <button
        v-for="t in tagLabels"
        :key="t.tag"
        type="button"
        :aria-label="`No longer only: ${t.label}`"
        @click="tags = tags.filter((x) => x !== t.tag)"
      >
        {{ t.label }} <X :size="16" aria-hidden="true" />
      </button>
    </p>
    <p v-if="isKept" class="soft" role="status">
      The workshop does not answer: these are the last casts as this device keeps them.
    </p>
    <p v-if="failure" class="failure" role="alert">
      {{ failure }} <Button label="Try again" @click="load" />
    </p>
    <DataTable v-else :value="rows" data-key="id" row-hover @row-click="open">
      <template #empty>
        <p class="soft empty">
          {{
            search || filter !== 'all'
              ? 'Nothing like that in the log.'
              : 'Nothing cast yet. The log fills itself from your pours.'
          }}
        </p>
      </template>
      <Column header="">
        <template #body="{ data: row }">
          <RingSign :rings="row.rings" :size="46" :label="row.state" :failed="row.failed" />
        </template>
      </Column>
      <Column header="Piece">
        <template #body="{ data: row }">
          <NuxtLink :to="`/casts/${row.id}`" class="piece">{{ row.piece }}</NuxtLink>
          <span class="soft under"
            >{{ row.mould }}<template v-if="row.count">, {{ row.count }}</template></span
          >
        </template>
      </Column>
      <Column header="Plaster" class="wide">
        <template #body="{ data: row }">
          {{ row.plaster }}<span class="soft under">{{ row.ratio }}</span>
        </template>
      </Column>
      <Column header="How it went">
        <template #body="{ data: row }">
          <b>{{ row.state }}</b><span class="soft under reason">{{ row.reason }}</span>
        </template>
      </Column>
      <Column header="Planned" class="wide">
        <template #body="{ data: row }">{{ row.day }}</template>
      </Column>
      <Column header="" class="wide">
        <template #body="{ data: row }">
          <label class="mark" @click.stop>
            <Checkbox
              :model-value="marked.includes(row.id)"
              binary
              :aria-label="`Compare ${row.piece}`"
              @update:model-value="mark(row.id)"
            />
          </label>
        </template>
      </Column>
    </DataTable>
    <nav v-if="!isFirst || page.next" class="turn" aria-label="Pages of the log">
      <Button severity="secondary" label="Newer" :disabled="isFirst" @click="newer" />
      <Button severity="secondary" label="Older" :disabled="!page.next" @click="older" />
    </nav>
  </div>
</template>

<style scoped>
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2);
}
.tags button {
  display: inline-flex;
  align-items: center;
  gap: var(--s2);
  min-height: 44px;
  padding: 0 var(--s3);
  border: 2px solid var(--wet);
  border-radius: 999px;
  background: transparent;
  color: inherit;
  font: inherit;
  font-weight: 600;
  cursor: pointer;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
  align-items: center;
}
.mark {
  display: grid;
  place-items: center;
  min-width: 44px;
  min-height: 44px;
}
.find {
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4);
  align-items: end;
}
.search {
  display: grid;
  gap: var(--s1);
  font-weight: 600;
  flex: 1 1 16rem;
  max-width: 26rem;
}
.count {
  padding-bottom: 0.8rem;
}
.piece {
  font-weight: 700;
  font-size: 1.1rem;
}
.under {
  display: block;
  font-size: 0.92rem;
}
.reason {
  max-width: 34ch;
}
.turn {
  display: flex;
  gap: var(--s3);
}
.empty {
  padding: var(--s6) 0;
  text-align: center;
}
.failure {
  color: var(--hot);
  font-weight: 600;
}
:deep(tbody tr) {
  cursor: pointer;
}
:deep(td) {
  vertical-align: middle;
}
@media (max-width: 43rem) {
  :deep(.wide) {
    display: none;
  }
  .reason {
    display: none;
  }
}
</style>
